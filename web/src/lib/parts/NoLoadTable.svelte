<script lang="ts">
  import type { Suspect } from '@refectum/core/assess';
  import type { MotorPoint } from '@refectum/core/curves';
  import type { Drives, Machine } from '@refectum/core/machines';

  interface Props {
    drives: Drives<Machine>;
    machine: Machine;
    unloaded: MotorPoint | undefined;
    celsius: number;
    suspects: readonly Suspect[];
  }
  const { drives, machine, unloaded, celsius, suspects }: Props = $props();
  const word = $derived(unloaded && drives.noLoad(machine, unloaded, celsius));
  const likely = $derived(suspects.filter(({ chance }) => chance >= 0.05).slice(0, 3));
</script>

<section class="sheet p-3 text-sm" aria-label="Run without load">
  <h2 class="text-xl font-semibold">Without load</h2>
  {#if word}
    <dl class="mt-1 grid grid-cols-[max-content_1fr] gap-x-3">
      <dt>Amps, speed</dt>
      <dd><strong>{word.amps}, {word.speed}</strong> beside a sound one at these volts</dd>
      <dt>Trade’s table</dt>
      <dd>{word.pointsTo}</dd>
      <dt>All readings</dt>
      <dd>
        {likely.length
          ? likely.map(({ name, chance }) => `${name} ${Math.round(100 * chance)} %`).join(', ')
          : 'no suspect'}
      </dd>
    </dl>
  {:else}
    <p class="mt-1">Amps and speed without load are read by the trade’s table here, beside what all readings say.</p>
  {/if}
</section>
