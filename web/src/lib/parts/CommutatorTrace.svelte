<script lang="ts">
  import { ripplesPerTurn } from '@refectum/core/curves';
  import { formatNumber } from '@refectum/core/quantity';
  import type { ReadSpeed } from '@refectum/core/waveform';
  import { proxy, type Remote, wrap } from 'comlink';
  import type { ShopInstrument } from '$lib/instruments.ts';
  import type { Bench } from '$lib/live/bench.svelte.ts';
  import { captureTrace } from '$lib/live/live-words.ts';
  import type { DrawnCurrent, ReadRunUp, StandWorker } from '$lib/live/stand.worker.ts';
  import InrushChart from './InrushChart.svelte';

  interface Props {
    bench: Bench;
    gearRatio: number;
    /** One at a port, if the shop has one. */
    oscilloscope: ShopInstrument | undefined;
  }
  const { bench, gearRatio, oscilloscope }: Props = $props();
  let bars = $state('25');
  let read = $state.raw<ReadSpeed>();
  let current = $state.raw<DrawnCurrent>();
  let foreseen = $state.raw<DrawnCurrent>();
  let share = $state<number>();
  let worker: Worker | undefined;

  const count = $derived(Number(bars));
  const fits = $derived(Number.isInteger(count) && count >= 11 && count <= 80);
  const pinion = $derived(read?.kind === 'read' ? read.rpm / gearRatio : undefined);

  /** As long as it runs up and a little longer; fast enough for bars at full speed. */
  const captured = { seconds: 1, points: 100_000 } as const;

  function startWorker() {
    cancel();
    read = undefined;
    current = undefined;
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
      .catch((error: Error): ReadRunUp => {
        const why = `${file.name} can’t be read: ${error.message}`;
        return { speed: { kind: 'refused', why }, current: undefined };
      });
    await show(curves, found);
  }

  /** What was read, and what the plate foresees of as long a time beside it. */
  async function show(curves: Remote<StandWorker>, found: ReadRunUp) {
    const seconds = found.current?.means.at(-1)?.seconds ?? 0;
    if (seconds > 0) foreseen = await curves.foreseenCurrent(bench.job.machine, bench.setting.celsius, seconds);
    read = found.speed;
    current = found.current;
    cancel();
  }

  async function onCapture() {
    const curves = startWorker();
    const caught = await captureTrace(oscilloscope!.id, captured);
    const found =
      'why' in caught
        ? { speed: { kind: 'refused' as const, ...caught }, current: undefined }
        : await curves.speedOf(caught.secondsPerSample, caught.amps, ripplesPerTurn(count));
    await show(curves, found);
  }
</script>

<details class="mt-2">
  <summary class="min-h-9 cursor-pointer py-1.5 text-sm">No tachometer? The speed from the current’s ripple</summary>
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
    {#if oscilloscope}
      <button type="button" class="btn min-h-11" disabled={!fits} onclick={() => void onCapture()}>
        From {oscilloscope.name}
      </button>
    {/if}
    {#if share !== undefined}
      <button type="button" class="btn min-h-11" onclick={cancel}>Stop reading</button>
      <progress class="progress w-32" value={share} max="1"></progress>
    {/if}
  </div>
  {#if !fits}<p role="alert" class="text-sm text-error">Bars: a whole number from 11 to 80.</p>{/if}
  <div role="status">
    {#if read?.kind === 'refused'}
      <p class="border-l-4 border-warning px-2 text-sm">{read.why}</p>
    {:else if read && pinion !== undefined}
      <p class="text-sm">
        Ripple at <span class="figure">{formatNumber(read.rippleHertz, 0)} Hz</span>, {read.standsOut.toFixed(1)} times what
        stands beside it: armature
        <span class="figure">{formatNumber(read.rpm, 0)} ± {formatNumber(Math.max(2 * read.sigma, 1), 0)} rpm</span>,
        pinion <span class="figure">{formatNumber(pinion, 0)} rpm</span>.
      </p>
      <button type="button" class="btn min-h-11" onclick={() => bench.type(String(Math.round(pinion)))}>
        Take {formatNumber(pinion, 0)} rpm
      </button>
    {/if}
  </div>
  {#if current}<InrushChart {current} {foreseen} />{/if}
</details>
