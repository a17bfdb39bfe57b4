<script lang="ts">
  import { brushLeft } from '@refectum/core/handbook';

  interface Props {
    /** mm: new, least, and as measured. */
    fresh: number;
    least: number;
    now: number;
  }
  const { fresh, least, now }: Props = $props();
  let hoursRun = $state<number | null>();

  const worn = $derived(Math.max(0, Math.min(1, (fresh - now) / (fresh - least))));
  const left = $derived.by(() => {
    if (hoursRun == null) return '';
    try {
      const { hours } = brushLeft(fresh, now, least, hoursRun);
      return hours === 0 ? 'Nothing left.' : `About ${Number(hours.toPrecision(2))} h left, worn on as since new.`;
    } catch (problem) {
      return (problem as Error).message;
    }
  });
</script>

<div class="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1">
  <span>{Math.round(100 * worn)} % of what may wear is worn.</span>
  <label class="flex items-center gap-2">
    Hours since new, if known
    <input class="figure input h-11 w-28" type="number" min="1" step="any" bind:value={hoursRun} />
  </label>
  <output>{left}</output>
</div>
