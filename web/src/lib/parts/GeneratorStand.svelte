<script lang="ts">
  import type { Equipment } from '@refectum/core/checks';
  import { type AssemblyState, familyOf, type Generates, type Machine } from '@refectum/core/machines';
  import { type Snippet, untrack } from 'svelte';
  import type { Bench } from '$lib/live/bench.svelte.ts';
  import { StandInstruments } from '$lib/live/stand-instruments.svelte.ts';
  import type { RunStand } from '$lib/live/run-stand.svelte.ts';
  import type { PageData } from '../../routes/unit/[tag]/stand/$types';
  import AnyCheck from './AnyCheck.svelte';
  import CheckAtHand from './CheckAtHand.svelte';
  import HandsFree from './HandsFree.svelte';
  import JumperDrawing from './JumperDrawing.svelte';
  import LiveStand from './LiveStand.svelte';
  import OutputCurve from './OutputCurve.svelte';
  import OutputPoints from './OutputPoints.svelte';
  import RegulationRun from './RegulationRun.svelte';
  import RippleTrace from './RippleTrace.svelte';
  import RunReading from './RunReading.svelte';
  import SuspectsAndTape from './SuspectsAndTape.svelte';
  import Timers from './Timers.svelte';

  interface Props {
    data: PageData;
    bench: Bench;
    stand: RunStand;
    generates: Generates<Machine>;
    running: AssemblyState;
    mounted: boolean;
    light: Snippet;
    done: Snippet;
  }
  const { data, bench, stand, generates, running, mounted, light, done: left }: Props = $props();
  const live = new StandInstruments(
    () => data.job.tag,
    () => data.instruments,
    () => ({
      profile: data.rules.stand,
      volts: rating.volts,
      foreseen,
      mostVolts: generates.runAwayShare * rating.volts,
    }),
  );
  const tag = $derived(data.job.tag);
  const machine = $derived(data.job.machine);
  /** The machine as text: a newer word of the server on the same machine is no reason to work it out anew. */
  const plate = $derived(JSON.stringify(machine));
  /** By the plate's figures. */
  const output = $derived.by(() => {
    const of = JSON.parse(plate) as typeof machine;
    return generates.output(of, familyOf(of).builds(of)[0]!, []);
  });
  const foreseen = $derived((rpm: number) => {
    const asOnPlate = output.priors.map(() => 0);
    return output.amps({ rpm, volts }, asOnPlate);
  });
  const check = $derived(bench.check);
  const isCommanded = $derived(bench.subject.checks.some(({ needs }) => needs === 'commander'));
  const runsByItself = (needs: Equipment | undefined) =>
    live.has('stand') && live.has('load') && (needs !== 'commander' || live.has('commander'));
  const rating = $derived(generates.rating(machine));
  const volts = $derived(rating.volts);
  const polePairs = $derived(generates.polePairs(machine));

  // Once for each unit: whoever empties the field types other volts.
  $effect(() => {
    void tag;
    untrack(() => (stand.typed.volts ||= String(volts)));
  });
  // A point counts from the moment it is on the log.
  $effect(() => {
    void stand.points;
    void untrack(() => bench.think());
  });
</script>

<div class="workplace">
  <div class="at-hand flex flex-col gap-3">
    {#if mounted}
      <CheckAtHand {bench} nulls={data.nulls}>
        {#snippet before()}
          <!-- What was read at one check of one unit is no other's. -->
          {#key `${tag} ${check?.id}`}
            {#if check?.method.kind === 'finding' && check.method.traced}
              <RippleTrace
                {bench}
                {check}
                {polePairs}
                oscilloscope={data.instruments.find(({ kind }) => kind === 'oscilloscope')}
              />
            {:else if check?.method.kind === 'finding' && check.method.watched?.course && runsByItself(check.needs)}
              <RegulationRun
                {bench}
                {check}
                watched={check.method.watched}
                {live}
                commanderHertz={data.rules.stand.commanderHertz}
              />
            {/if}
          {/key}
        {/snippet}
        {#snippet done()}{@render left()}{/snippet}
      </CheckAtHand>
      {#if check?.method.kind === 'run'}
        <section class="sheet p-3" aria-label="Past the regulator">
          {#if machine.family === 'claw-pole'}<JumperDrawing {machine} />{/if}
          {#if check.method.setup.shows === 'output' && live.has('clamp') && live.has('stand') && live.has('load')}
            <RunReading {bench} {check} setup={check.method.setup} {live} />
          {/if}
        </section>
      {/if}
      <HandsFree
        {bench}
        {tag}
        simulated={data.simulated}
        supply={data.instruments.find(({ kind }) => kind === 'supply')}
        instruments={data.instruments.filter(({ kind }) => kind === 'multimeter')}
      />
    {:else}
      <p class="sheet p-4 text-lg">
        Nothing is read here before the unit is clamped on the stand. What was read at rest decides whether it may run.
      </p>
    {/if}
    {#if mounted || stand.points.length}<OutputCurve
        {stand}
        {machine}
        {generates}
        school={data.rules.output}
        reachable={live.plan.flatMap(({ rpm, possible }) => (possible ? [rpm] : []))}
        winding={bench.diagnosis?.windings.find(({ id }) => id === generates.outputWinding)}
      />{/if}
    {#if mounted}<AnyCheck {bench} />{/if}
  </div>

  <div class="beside">
    <div class="look flex flex-col gap-3">
      {@render light()}
      <Timers of="generator" {tag} />
      {#if mounted && data.instruments.length}
        <LiveStand
          {stand}
          {live}
          {tag}
          {volts}
          school={data.rules.output}
          {polePairs}
          bandwidthHertz={bench.meter?.bandwidthHertz}
          simulated={data.simulated ? running.id : undefined}
          commands={isCommanded ? { hertz: data.rules.stand.commanderHertz } : undefined}
        />
      {/if}
    </div>
    <SuspectsAndTape {bench} />
  </div>

  <div class="more">
    {#if mounted}<OutputPoints
        {stand}
        {volts}
        school={data.rules.output}
        {polePairs}
        ratedAmps={rating.amps}
        profile={data.rules.stand}
        subject={bench.subject}
        judged={bench.diagnosis?.output ?? []}
      />{/if}
  </div>
</div>
