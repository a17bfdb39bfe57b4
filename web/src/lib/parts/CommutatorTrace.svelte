<script lang="ts">
  import { ripplesPerTurn } from '@refectum/core/curves';
  import { formatNumber } from '@refectum/core/quantity';
  import type { Check } from '@refectum/core/checks';
  import { proxy, type Remote, wrap } from 'comlink';
  import type { ShopInstrument } from '$lib/instruments.ts';
  import { tick } from 'svelte';
  import { isFree, keysOn } from '$lib/keys.ts';
  import type { Bench } from '$lib/live/bench.svelte.ts';
  import { type Captured, captureTrace } from '$lib/live/live-words.ts';
  import type { DrawnCurrent, ReadRunUp, StandWorker } from '$lib/live/stand.worker.ts';
  import { type StarterRun, watched } from '$lib/live/starter-run.svelte.ts';
  import InrushChart from './InrushChart.svelte';
  import TurnChart from './TurnChart.svelte';

  interface Props {
    bench: Bench;
    check: Check;
    /** Feeds it while the oscilloscope watches; by hand where no supply is at a port. */
    run: StarterRun | undefined;
    gearRatio: number;
    /** One at a port, if the shop has one. */
    oscilloscope: ShopInstrument | undefined;
  }
  const { bench, check, run, gearRatio, oscilloscope }: Props = $props();
  let bars = $state('25');
  let read = $state.raw<ReadRunUp>();
  let foreseen = $state.raw<DrawnCurrent>();
  let share = $state<number>();
  /** Ready under Enter once the trace is read. */
  let recorder = $state<HTMLButtonElement>();
  let worker: Worker | undefined;

  const busy = $derived(share !== undefined || (run !== undefined && run.doing !== ''));
  const count = $derived(Number(bars));
  const fits = $derived(Number.isInteger(count) && count >= 11 && count <= 80);
  const speed = $derived(read?.speed.kind === 'read' ? read.speed : undefined);
  const pinion = $derived(speed && speed.rpm / gearRatio);
  const turns = $derived(read?.turns.kind === 'read' ? read.turns : undefined);
  const method = $derived(check.method.kind === 'finding' ? check.method : undefined);
  /** Of what the check at hand wants. */
  const wanted = $derived(method ? read?.turns : read?.speed);
  /** What was seen while numbers were read: for its turns it needs no other run. */
  const kept = $derived(method && run?.traceOf(bench.job.tag));
  const outcome = $derived(turns && method?.outcomes.find(({ id }) => id === method.turned?.(turns)));
  /** Each turn in words, as it is kept beside what is recorded. */
  const spoken = $derived(
    turns &&
      `${turns.count} turns: ${turns.gaps || 'no'} gaps in the ripple, swells by ${(100 * turns.swell).toFixed(1)} %`,
  );

  function startWorker() {
    cancel();
    read = undefined;
    share = 0;
    worker = new Worker(new URL('../live/stand.worker.ts', import.meta.url), { type: 'module' });
    return wrap<StandWorker>(worker);
  }
  function cancel() {
    worker?.terminate();
    worker = undefined;
    share = undefined;
  }
  $effect(() => cancel);

  async function onFile(event: Event & { currentTarget: HTMLInputElement }) {
    const file = event.currentTarget.files?.[0];
    event.currentTarget.value = '';
    if (!file) return;
    const curves = startWorker();
    const found = await curves
      .speed(
        file,
        ripplesPerTurn(count),
        proxy((now: number) => (share = now)),
      )
      .catch((error: Error): ReadRunUp => unread(`${file.name} can’t be read: ${error.message}`));
    await show(curves, found);
  }

  const unread = (why: string): ReadRunUp => {
    const refused = { kind: 'refused', why } as const;
    return { speed: refused, turns: refused, current: undefined };
  };

  /** What was read, and what the plate foresees of as long a time beside it. */
  async function show(curves: Remote<StandWorker>, found: ReadRunUp) {
    const seconds = found.current?.means.at(-1)?.seconds ?? 0;
    if (seconds > 0) foreseen = await curves.foreseenCurrent(bench.job.machine, bench.setting.celsius, seconds);
    read = found;
    cancel();
    await tick();
    recorder?.focus();
  }

  /** With the check at hand read from a trace alone, the key that feeds and reads means this. */
  function onKey(event: KeyboardEvent) {
    if (event.key !== 'i' || event.ctrlKey || event.altKey || event.metaKey || event.defaultPrevented) return;
    if (!method || !oscilloscope || !keysOn() || !isFree(event)) return;
    event.preventDefault();
    if (fits && !busy) void (kept ? onCaught(kept) : onCapture());
  }

  async function record() {
    if (!outcome || !spoken || !(await bench.take({ kind: 'finding', finding: outcome.id }, spoken))) return;
    read = undefined;
    run?.forgetTrace();
  }

  async function onCapture() {
    const capture = () => captureTrace(oscilloscope!.id, watched);
    const caught = await (run ? run.during('The oscilloscope watches…', capture) : capture());
    if (caught) await onCaught(caught);
  }

  async function onCaught(caught: Captured | { readonly why: string }) {
    const curves = startWorker();
    const found =
      'why' in caught
        ? unread(caught.why)
        : await curves.speedOf(caught.secondsPerSample, caught.amps, ripplesPerTurn(count));
    // One that tells nothing is in the way of a better one.
    if (found.turns.kind === 'refused') run?.forgetTrace();
    await show(curves, found);
  }
</script>

<svelte:window onkeydown={onKey} />

<details class="mt-2" open={method !== undefined}>
  <summary class="min-h-9 cursor-pointer py-1.5 text-sm">
    {method ? 'Read it from a trace of the current' : 'No tachometer? The speed from the current’s ripple'}
  </summary>
  <p class="text-sm">
    A trace of the clamp, time and amps: passing bars ripple it. Count the bars; an odd number ripples twice for each.
  </p>
  <div class="mt-1 flex flex-wrap items-end gap-2">
    <label class="flex flex-col text-sm">
      Bars
      <input
        class="figure input h-11 w-20"
        inputmode="numeric"
        bind:value={bars}
        aria-invalid={fits ? undefined : 'true'}
      />
    </label>
    <label class="btn min-h-11" class:btn-disabled={!fits}>
      Its file
      <input class="sr-only" type="file" accept=".csv,.txt,text/csv,text/plain" disabled={!fits} onchange={onFile} />
    </label>
    {#if kept}
      <button type="button" class="btn min-h-11" disabled={!fits || busy} onclick={() => void onCaught(kept)}>
        <span class="figure">i</span>
        Trace of the last run
      </button>
    {/if}
    {#if oscilloscope}
      <button type="button" class="btn min-h-11" disabled={!fits || busy} onclick={() => void onCapture()}>
        {#if method && !kept}<span class="figure">i</span>{/if}
        {run ? 'Feed it, trace from' : 'Trace from'}
        {oscilloscope.name}
      </button>
    {/if}
    {#if share !== undefined}
      <button type="button" class="btn min-h-11" onclick={cancel}>Stop reading</button>
      <progress class="progress w-32" value={share} max="1"></progress>
    {/if}
  </div>
  {#if !fits}<p role="alert" class="text-sm text-error">Bars: a whole number from 11 to 80.</p>{/if}
  <div role="status" class="mt-1">
    {#if wanted?.kind === 'refused'}
      <p class="border-l-4 border-warning px-2 text-sm">{wanted.why}</p>
    {/if}
    {#if speed && pinion !== undefined}
      <p class="text-sm">
        Ripple at <span class="figure">{formatNumber(speed.rippleHertz, 0)} Hz</span>, {speed.standsOut.toFixed(1)} times
        what stands beside it: armature
        <span class="figure">{formatNumber(speed.rpm, 0)} ± {formatNumber(Math.max(2 * speed.sigma, 1), 0)} rpm</span>,
        pinion <span class="figure">{formatNumber(pinion, 0)} rpm</span>.
      </p>
      {#if !method}
        <button type="button" class="btn min-h-11" onclick={() => bench.type(String(Math.round(pinion)))}>
          Take {formatNumber(pinion, 0)} rpm
        </button>
      {/if}
    {/if}
    {#if turns}
      <div class="flex items-center gap-3">
        <TurnChart {turns} />
        <div class="text-sm">
          <p>{spoken}.</p>
          {#if outcome}
            <button type="button" class="btn mt-2 min-h-11" bind:this={recorder} onclick={() => void record()}>
              Record: {outcome.name}
            </button>
          {/if}
        </div>
      </div>
    {/if}
  </div>
  {#if read?.current}<InrushChart current={read.current} {foreseen} />{/if}
</details>
