<script lang="ts">
  import type { StandInstruments } from '$lib/live/stand-instruments.svelte.ts';

  interface Props {
    live: StandInstruments;
    /** Each by its name, as it is shown. */
    figures: readonly (readonly [name: string, value: string])[];
  }
  const { live, figures }: Props = $props();
</script>

<dl class="figure mt-1 grid grid-cols-2 gap-x-3" aria-live="off">
  {#each figures as [name, value] (name)}
    <div class="flex items-baseline justify-between border-b border-base-300 py-1">
      <dt class="font-sans text-sm">{name}</dt>
      <dd class="text-lg">{value}</dd>
    </div>
  {/each}
</dl>
{#if live.away}<p role="status" class="mt-1 text-sm">The server is away: the values come again by themselves.</p>{/if}
{#each live.gone as why (why)}<p role="status" class="mt-1 border-l-4 border-warning px-2 text-sm">{why}.</p>{/each}
