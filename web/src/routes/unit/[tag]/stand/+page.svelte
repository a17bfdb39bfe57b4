<script lang="ts">
  import { asReceived, familyOf } from '@refectum/core/machines';
  import { tagFacts } from '$lib/job.ts';
  import { followBench } from '$lib/live/follow-bench.svelte.ts';
  import { StandInstruments } from '$lib/live/stand-instruments.svelte.ts';
  import { RunStand } from '$lib/live/run-stand.svelte.ts';
  import AnyCheck from '$lib/parts/AnyCheck.svelte';
  import CheckAtHand from '$lib/parts/CheckAtHand.svelte';
  import HandsFree from '$lib/parts/HandsFree.svelte';
  import JumperDrawing from '$lib/parts/JumperDrawing.svelte';
  import LiveStand from '$lib/parts/LiveStand.svelte';
  import MeterAndHeat from '$lib/parts/MeterAndHeat.svelte';
  import OutputCurve from '$lib/parts/OutputCurve.svelte';
  import OutputPoints from '$lib/parts/OutputPoints.svelte';
  import RegulationRun from '$lib/parts/RegulationRun.svelte';
  import RippleTrace from '$lib/parts/RippleTrace.svelte';
  import RunReading from '$lib/parts/RunReading.svelte';
  import StandGate from '$lib/parts/StandGate.svelte';
  import SuspectsAndTape from '$lib/parts/SuspectsAndTape.svelte';
  import Tag from '$lib/parts/Tag.svelte';
  import Timers from '$lib/parts/Timers.svelte';

  const { data } = $props();
  const following = followBench(() => data, 'bench');
  const bench = $derived(following.current);
  const stand = new RunStand(
    () => data.job,
    () => data.person,
    () => bench.round,
  );
  const live = new StandInstruments(
    () => data.job.tag,
    () => data.instruments,
    () => ({ profile: data.rules.stand, volts, foreseen }),
  );
  const tag = $derived(data.job.tag);
  const machine = $derived(data.job.machine);
  const states = $derived(bench.subject.assemblies);
  const running = $derived(states.find((state) => state.running)!);
  /** The machine as text: a newer word of the server on the same machine is no reason to work it out anew. */
  const plate = $derived(JSON.stringify(machine));
  /** By the plate's figures. */
  const output = $derived.by(() => {
    const of = JSON.parse(plate) as typeof machine;
    return familyOf(of).output(of, familyOf(of).builds(of)[0]!, []);
  });
  const foreseen = $derived((rpm: number) => {
    const asOnPlate = output.priors.map(() => 0);
    return output.amps({ rpm, volts }, asOnPlate);
  });
  const mounted = $derived(bench.setting.assembly === running.id);
  const check = $derived(bench.check);
  const volts = $derived(familyOf(machine).rating(machine).volts);

  $effect(() => {
    if (!stand.typed.volts) stand.typed.volts = String(volts);
  });
</script>

{#snippet toVerdict()}
  {bench.outlook?.stop} <a class="link" href="/unit/{tag}/verdict">To the verdict</a>.
{/snippet}

<svelte:head><title>Run stand, tag {tag} · Refectum</title></svelte:head>

<h1 class="sr-only">Run stand: tag {tag}, {data.job.model}</h1>
<div class="flex flex-wrap items-stretch gap-3 px-4 pt-3">
  <div class="min-w-72 flex-1 basis-0"><Tag facts={tagFacts(bench.job)} wide /></div>
  <div class="flex flex-wrap items-end gap-2">
    <MeterAndHeat {bench} />
    <a class="btn h-9 px-2.5" href="/unit/{tag}">Bench</a>
    <a class="btn h-9 px-2.5 btn-primary" href="/unit/{tag}/verdict">Verdict</a>
    <a class="btn h-9 px-2.5" href="/unit/{tag}/report">Report</a>
  </div>
</div>

<div
  class="grid grow grid-cols-[minmax(0,1fr)] content-start gap-4 p-4 md:grid-cols-[minmax(0,1fr)_19rem] lg:grid-cols-[19rem_minmax(0,1fr)_19rem]"
>
  <div class="flex flex-col gap-3">
    {#if bench.diagnosis?.gate}
      <StandGate
        gate={bench.diagnosis.gate}
        {stand}
        {tag}
        {mounted}
        onmount={() => void bench.change({ assembly: running.id })}
        onunmount={() => void bench.change({ assembly: asReceived(states).id })}
      />
    {:else}
      <p class="sheet p-3" role="status">Looking at what was read…</p>
    {/if}
    <Timers />
    {#if mounted && data.instruments.length}
      <LiveStand
        {stand}
        {live}
        {tag}
        {volts}
        bandwidthHertz={bench.meter?.bandwidthHertz}
        simulated={data.simulated ? running.id : undefined}
      />
    {/if}
    {#if mounted}<OutputPoints {stand} {volts} ratedAmps={machine.ratedAmps} profile={data.rules.stand} />{/if}
  </div>
  <div class="order-first flex flex-col gap-3 lg:order-none">
    {#if mounted}
      <CheckAtHand {bench} nulls={data.nulls}>
        {#snippet before()}
          {#if check?.method.kind === 'finding' && check.method.traced}
            <RippleTrace {bench} {check} oscilloscope={data.instruments.find(({ kind }) => kind === 'oscilloscope')} />
          {:else if check?.method.kind === 'finding' && check.method.watched && live.has('stand') && live.has('load')}
            <RegulationRun {bench} {check} {live} ratedAmps={machine.ratedAmps} />
          {/if}
        {/snippet}
        {#snippet done()}{@render toVerdict()}{/snippet}
      </CheckAtHand>
      {#if check?.method.kind === 'run'}
        <section class="sheet p-3" aria-label="Past the regulator">
          <JumperDrawing regulatorSide={machine.regulatorSide} />
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
    {#if mounted || stand.points.length}<OutputCurve {stand} {machine} />{/if}
    {#if mounted}<AnyCheck {bench} />{/if}
  </div>
  <SuspectsAndTape {bench} />
</div>
