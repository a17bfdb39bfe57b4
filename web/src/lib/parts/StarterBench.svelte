<script lang="ts">
  import type { Check } from '@refectum/core/checks';
  import { heatLeft, loadTestLimit } from '@refectum/core/handbook';
  import type { AssemblyState, Drives, Machine } from '@refectum/core/machines';
  import { motorRun } from '@refectum/core/curves';
  import { type Snippet, untrack } from 'svelte';
  import type { Bench } from '$lib/live/bench.svelte.ts';
  import { captureTrace, tellInstrument } from '$lib/live/live-words.ts';
  import { StarterRun, watched } from '$lib/live/starter-run.svelte.ts';
  import { StandInstruments } from '$lib/live/stand-instruments.svelte.ts';
  import { timers } from '$lib/live/timers.svelte.ts';
  import type { PageData } from '../../routes/unit/[tag]/stand/$types';
  import AnyCheck from './AnyCheck.svelte';
  import CheckAtHand from './CheckAtHand.svelte';
  import CommutatorTrace from './CommutatorTrace.svelte';
  import LiveStarter from './LiveStarter.svelte';
  import MotorCurve from './MotorCurve.svelte';
  import NoLoadTable from './NoLoadTable.svelte';
  import SuspectsAndTape from './SuspectsAndTape.svelte';
  import Timers from './Timers.svelte';

  interface Props {
    data: PageData;
    bench: Bench;
    drives: Drives<Machine>;
    running: AssemblyState;
    mounted: boolean;
    light: Snippet;
    done: Snippet;
  }
  const { data, bench, drives, running, mounted, light, done: left }: Props = $props();
  const tag = $derived(data.job.tag);
  const machine = $derived(data.job.machine);
  const celsius = $derived(bench.setting.celsius);
  const check = $derived(bench.check);
  const fed = $derived(drives.fed(machine, [], celsius));
  /** A motor draws what it draws: no speed of a drive is foreseen. */
  const live = new StandInstruments(
    () => tag,
    () => data.instruments,
    () => ({ profile: data.rules.stand, volts: machine.ratedVolts, foreseen: () => 0 }),
  );
  const mayWrite = $derived(data.person.role !== 'viewer');
  /** The state of a starter clamped on the simulated bench; undefined where the bench is a real one. */
  const clampedAs = $derived(data.simulated ? running.id : undefined);
  const hands = (told: object) => tellInstrument('/api/hands', { tag, assembly: clampedAs, ...told });
  const oscilloscope = $derived(data.instruments.find(({ kind }) => kind === 'oscilloscope'));
  const watch = async () => oscilloscope && (await captureTrace(oscilloscope.id, watched));
  const run = untrack(
    () =>
      new StarterRun(() => bench, live, watch, clampedAs ? async (probes) => void (await hands(probes)) : undefined),
  );
  const points = $derived(drives.points(machine, bench.standing));
  const unloaded = $derived(points.find(({ load }) => load === 'none'));
  const rested = $derived(
    bench.standing.findLast(({ check, outcome }) => check === 'battery-rested' && outcome.kind === 'value')?.outcome,
  );
  const limit = $derived(
    loadTestLimit(celsius, rested?.kind === 'value' ? rested.value : Infinity, machine.ratedVolts),
  );

  /** Of the run, what a trace of the current shows. */
  const readsTrace = ({ method }: Check): boolean =>
    (method.kind === 'run' && method.setup.instrument === 'tachometer') ||
    (method.kind === 'finding' && method.turned !== undefined);

  /** What the windings take, by the plate: spinning free and held. */
  const taken = $derived.by(() => {
    const { motor, source } = fed;
    const watts = (load: 'held' | { newtonMetres: number }) => motorRun(motor, source, load).amps ** 2 * motor.ohms;
    return { spin: watts({ newtonMetres: 0 }), held: watts('held') };
  });
  const past = $derived(timers.pastOf(tag));
  const kelvin = $derived(
    heatLeft(
      past.map(({ kind, seconds, ended }) => {
        const watts = kind === 'held' ? taken.held : taken.spin;
        return { seconds, watts, endedSecondsAgo: Math.max(timers.now - ended, 0) / 1000 };
      }),
      drives.ratedWatts(machine) / 1000,
    ),
  );
</script>

<div class="workplace">
  <div class="at-hand flex flex-col gap-3">
    {#if mounted}
      <CheckAtHand {bench} nulls={data.nulls}>
        {#snippet before()}
          {#if check && readsTrace(check)}
            <!-- What was read of one unit is no other's. -->
            {#key tag}
              <CommutatorTrace
                {bench}
                {check}
                run={mayWrite && live.has('supply') ? run : undefined}
                gearRatio={fed.motor.gear.ratio}
                {oscilloscope}
              />
            {/key}
          {/if}
        {/snippet}
        {#snippet done()}{@render left()}{/snippet}
      </CheckAtHand>
    {:else}
      <p class="sheet p-4 text-lg">
        Nothing is fed before the starter is clamped: it kicks. What was read at rest decides whether it may run. State:
        {running.name.toLowerCase()} comes with the light’s button.
      </p>
    {/if}
    {#if mounted || points.length}<MotorCurve {machine} {drives} {points} {celsius} />{/if}
    {#if mounted}<AnyCheck {bench} />{/if}
  </div>

  <div class="beside">
    <div class="look flex flex-col gap-3">
      {@render light()}
      <Timers of="starter" {tag}>
        <p class="text-sm">
          {past.length === 0
            ? 'Ten seconds on, two minutes off; held, under three seconds.'
            : `${past.length} ${past.length === 1 ? 'run' : 'runs'}: windings ${kelvin < 1 ? 'under 1' : `about ${Math.round(kelvin)}`} K above the room.`}
        </p>
      </Timers>
      {#if mounted && data.instruments.length}
        <LiveStarter {bench} {live} {run} {tag} {mayWrite} hands={clampedAs ? hands : undefined} />
      {/if}
    </div>
    <SuspectsAndTape {bench} />
  </div>

  <div class="more flex flex-col gap-3">
    {#if mounted}
      <section class="sheet p-3 text-sm" aria-label="Bench battery">
        <h2 class="text-xl font-semibold">Bench battery first</h2>
        <p class="mt-1">
          After 15 s at half its cold-cranking amps at least <span class="figure">{limit.volts.toFixed(1)} V</span> at {celsius}
          °C: a weak one fails every starter.
        </p>
        {#if limit.barred}<p class="mt-1 border-l-4 border-warning px-3">{limit.barred}</p>{/if}
      </section>
      <NoLoadTable {drives} {machine} {unloaded} {celsius} suspects={bench.diagnosis?.suspects ?? []} />
    {/if}
  </div>
</div>
