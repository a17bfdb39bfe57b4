<script lang="ts">
  import type { Winding } from '@refectum/core/assess';
  import type { OutputPoint } from '@refectum/core/curves';
  import type { Generates, Machine } from '@refectum/core/machines';
  import { wrap } from 'comlink';
  import { untrack } from 'svelte';
  import type { RunStand } from '$lib/live/run-stand.svelte.ts';
  import type { FittedOutput, StandWorker } from '$lib/live/stand.worker.ts';
  import { copperText } from '$lib/report.ts';
  import type { OutputSchool } from '$lib/rules.ts';
  import OutputChart from './OutputChart.svelte';

  interface Props {
    stand: RunStand;
    machine: Machine;
    generates: Generates<Machine>;
    /** What readings at rest say of the winding that the output hangs on. */
    winding: Winding | undefined;
    /** How this shop reads an output. */
    school: OutputSchool;
    /** Speeds that the stand can take. */
    reachable: readonly number[];
  }
  const { stand, machine, generates, winding, school, reachable }: Props = $props();
  /** A prediction this narrow needs no further point. */
  const narrowEnough = 0.03;
  let fitted = $state.raw<FittedOutput>();
  let working = $state(false);
  const rating = $derived(generates.rating(machine));
  const range = ({ amps, low, high }: { amps: number; low: number; high: number }) =>
    `${amps.toFixed(0)} A (${low.toFixed(0)} to ${high.toFixed(0)})`;
  /** Both schools of what an output is; this shop's first, and held against the rating. */
  const outputs = $derived.by(() => {
    if (!fitted) return [];
    const { rated, most } = fitted;
    const held = { name: `At ${rating.rpm} rpm, ${rating.volts} V`, foreseen: rated, at: '' };
    const drawn = { name: 'Most a pile draws', foreseen: most, at: `${most.rpm} rpm, ${most.volts.toFixed(1)} V` };
    return school === 'most' ? [drawn, held] : [held, drawn];
  });
  /** Half of an interval, of what is foreseen. */
  const share = ({ amps, low, high }: { amps: number; low: number; high: number }) => (high - low) / 2 / amps;
  const percent = (part: number) => `${(100 * part).toFixed(1)} %`;
  /** A further point is worth naming where it narrows what isn't narrow yet. */
  const further = $derived.by(() => {
    const { rated, narrowed } = fitted ?? {};
    if (!rated || !narrowed || share(rated) < narrowEnough || stand.points.some(({ rpm }) => rpm >= rating.rpm))
      return undefined;
    return { rpm: narrowed.byRpm, from: share(rated), to: share(narrowed.rated) };
  });

  /** What is fitted, as text: a newer word of the server on the same points is no reason to fit again. */
  const asked = $derived(JSON.stringify([machine, stand.points, winding ?? null, reachable]));

  $effect(() => {
    const [of, points, read, speeds] = JSON.parse(asked) as [Machine, OutputPoint[], Winding | null, number[]];
    return untrack(() => {
      if (points.length === 0) {
        fitted = undefined;
        working = false;
        return;
      }
      const worker = new Worker(new URL('../live/stand.worker.ts', import.meta.url), { type: 'module' });
      working = true;
      void wrap<StandWorker>(worker)
        .output(of, points, read ?? undefined, speeds)
        .then((found) => {
          fitted = found;
          working = false;
        });
      return () => worker.terminate();
    });
  });
</script>

<section class="sheet p-3" aria-label="Output curve">
  <h2 class="text-xl font-semibold">Output against speed</h2>
  <OutputChart points={stand.points} {fitted} {rating} />
  {#if fitted}
    <dl class="grid grid-cols-[max-content_1fr] gap-x-3 text-sm">
      {#each outputs as { name, foreseen, at }, n (name)}
        <dt>{name}</dt>
        <dd class="figure">
          {range(foreseen)}{at ? ` at ${at}` : ''}{n === 0 ? `, rated ${rating.amps} A` : ''}{n === 0 &&
          foreseen.high < rating.amps
            ? ': short of it'
            : ''}
        </dd>
      {/each}
      {#if further}
        <dt>One more point</dt>
        <dd>
          at {further.rpm} rpm would foresee {rating.rpm} rpm within {percent(further.to)}, now {percent(further.from)}
        </dd>
      {/if}
      <dt>At 1500 rpm</dt>
      <dd class="figure">{fitted.idle ? range(fitted.idle) : 'can’t tell without a point at 1700 rpm or below'}</dd>
      <dt>Hot, 110 °C</dt>
      <dd class="figure">{fitted.hot ? range(fitted.hot) : 'can’t tell: a point has no temperature'}</dd>
      <dt>Its shape is like</dt>
      <dd>
        {fitted.shapes
          .filter(({ share }) => share >= 0.05)
          .map(({ name, share }) => `${name} ${Math.round(100 * share)} %`)
          .join(', ')}
      </dd>
      <dt>Winding</dt>
      <dd>{winding ? copperText(winding) : 'by its plate: volts under a known current would narrow the band'}</dd>
    </dl>
  {:else}
    <p class="text-sm">The first point draws the curve; three or four between 1500 and 3500 rpm foresee 6000.</p>
  {/if}
  <p class="min-h-5 text-sm" role="status">{working ? 'Fitting…' : ''}</p>
</section>
