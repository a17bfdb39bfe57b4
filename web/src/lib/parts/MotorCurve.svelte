<script lang="ts">
  import type { MotorPoint } from '@refectum/core/curves';
  import type { Drives, Machine } from '@refectum/core/machines';
  import { formatNumber } from '@refectum/core/quantity';
  import { wrap } from 'comlink';
  import { untrack } from 'svelte';
  import type { FittedMotorCurve, StandWorker } from '$lib/live/stand.worker.ts';
  import MotorChart from './MotorChart.svelte';

  interface Props {
    machine: Machine;
    drives: Drives<Machine>;
    points: readonly MotorPoint[];
    celsius: number;
  }
  const { machine, drives, points, celsius }: Props = $props();
  let fitted = $state.raw<FittedMotorCurve>();
  let working = $state(false);

  const rated = $derived(drives.ratedWatts(machine));
  const asked = $derived(JSON.stringify([machine, points, celsius]));
  const range = ({ mean, low, high }: { mean: number; low: number; high: number }, decimals = 0) =>
    `${formatNumber(mean, decimals)} (${formatNumber(low, decimals)} to ${formatNumber(high, decimals)})`;
  const cantTell = 'can’t tell from no load';

  $effect(() => {
    const [of, read, heat] = JSON.parse(asked) as [Machine, MotorPoint[], number];
    return untrack(() => {
      const worker = new Worker(new URL('../live/stand.worker.ts', import.meta.url), { type: 'module' });
      working = true;
      void wrap<StandWorker>(worker)
        .motor(of, read, heat)
        .then((found) => {
          fitted = found;
          working = false;
        });
      return () => worker.terminate();
    });
  });
</script>

<section class="sheet p-3" aria-label="Motor curve">
  <h2 class="text-xl font-semibold">Torque, speed and power against amps</h2>
  {#if fitted}
    <MotorChart {fitted} {points} />
    {#if fitted.told}
      {@const { unloaded, loaded } = fitted.told}
      <dl class="grid grid-cols-[max-content_1fr] gap-x-3 text-sm">
        <dt>Without load, {machine.ratedVolts} V, 20 °C</dt>
        <dd class="figure">{range(unloaded.amps)} A, {range(unloaded.rpm)} rpm</dd>
        <dt>Held, {machine.ratedVolts} V, 20 °C</dt>
        <dd class="figure">
          {loaded ? `${range(loaded.held.amps)} A, ${range(loaded.held.newtonMetres, 1)} Nm` : cantTell}
        </dd>
        <dt>Most power at the pinion</dt>
        <dd class="figure">
          {loaded ? `${range(loaded.peakWatts)} W` : cantTell}, rated {formatNumber(rated, 0)} W{loaded &&
          loaded.peakWatts.high < rated
            ? ': short of it'
            : ''}
        </dd>
        <dt>Its shape is like</dt>
        <dd>
          {fitted.shapes
            .filter(({ share }) => share >= 0.05)
            .map(({ name, share }) => `${name} ${Math.round(100 * share)} %`)
            .join(', ')}
        </dd>
      </dl>
      {#if !loaded}
        <p class="mt-1 border-l-4 border-info px-3 text-sm">
          From no load alone resistance can’t be told: a braked or held point, or the drop over the contacts, can.
        </p>
      {/if}
    {:else}
      <p class="text-sm">Thin: by the plate. A run without load and one braked or held draw its own.</p>
    {/if}
  {/if}
  <p class="min-h-5 text-sm" role="status">{working ? 'Working it out…' : ''}</p>
</section>
