<script lang="ts">
  import {
    BarController,
    BarElement,
    CategoryScale,
    Chart,
    LinearScale,
    LineController,
    LineElement,
    PointElement,
  } from 'chart.js';
  import type { Check, TapTrace } from '@refectum/core/checks';
  import { parseQuantity } from '@refectum/core/quantity';
  import { type ReadTrace, tellingOrders } from '@refectum/core/waveform';
  import { proxy, wrap } from 'comlink';
  import type { ShopInstrument } from '$lib/instruments.ts';
  import type { Bench } from '$lib/live/bench.svelte.ts';
  import { captureTrace } from '$lib/live/live-words.ts';
  import type { StandWorker, TracePattern } from '$lib/live/stand.worker.ts';

  interface Props {
    bench: Bench;
    check: Check;
    /** One at a port, if the shop has one. */
    oscilloscope?: ShopInstrument | undefined;
    /** The machine's own. */
    polePairs: number;
  }
  const { bench, check, oscilloscope, polePairs: ownPolePairs }: Props = $props();
  Chart.defaults.font.family = 'IBM Plex Sans';
  Chart.register(BarController, BarElement, CategoryScale, LinearScale, LineController, LineElement, PointElement);

  let rpm = $state('3000');
  // Another may be tried, until another unit is on screen: not every plate is right.
  let polePairs = $derived(ownPolePairs);
  let read = $state.raw<ReadTrace>();
  let tap = $state.raw<TapTrace>();
  let patterns = $state.raw<readonly TracePattern[]>([]);
  let share = $state<number>();
  let worker: Worker | undefined;
  let periodCanvas = $state<HTMLCanvasElement>();
  let ordersCanvas = $state<HTMLCanvasElement>();

  const typedSpeed = $derived(parseQuantity(rpm, 'rpm'));
  const typedRpm = $derived(typedSpeed.kind === 'value' ? typedSpeed.value : NaN);
  const expectedHertz = $derived((typedRpm * polePairs) / 60);
  const method = $derived(check.method.kind === 'finding' ? check.method : undefined);
  const found = $derived(read?.kind === 'read' ? method?.traced?.(read.orders, tap) : undefined);
  const pattern = $derived(method?.outcomes.find(({ id }) => id === found));
  const speed = $derived(read?.kind === 'read' ? (60 * read.electricalHertz) / polePairs : 0);
  const shareOf = (order: number): number =>
    read?.kind === 'read' ? read.orders.rms[order - 1]! / Math.max(read.orders.ripple, 1e-12) : 0;
  const shares = $derived(
    read?.kind === 'read' ? tellingOrders.map((order) => ({ order, share: shareOf(order) })) : [],
  );

  /** The fault whose pattern lies nearest to what was read, and a sound machine's for comparison. */
  const nearest = $derived.by(() => {
    if (shares.length === 0 || patterns.length === 0) return [];
    const off = (pattern: TracePattern) =>
      pattern.shares.reduce((sum, one, i) => sum + (one - shares[i]!.share) ** 2, 0);
    const [best] = [...patterns].sort((a, b) => off(a) - off(b));
    return best === patterns[0] ? [best!] : [best!, patterns[0]!];
  });

  const spoken = $derived(shares.map(({ order, share: part }) => `${order}: ${Math.round(100 * part)} %`).join(', '));

  /** So many periods, each with so many samples. */
  const captured = { periods: 12, samples: 400 } as const;

  function startWorker() {
    cancel();
    read = tap = undefined;
    patterns = [];
    share = 0;
    worker = new Worker(new URL('../live/stand.worker.ts', import.meta.url), { type: 'module' });
    return wrap<StandWorker>(worker);
  }

  /** Whether a rotor speed is typed; says so when not. */
  function isSpeedTyped(): boolean {
    if (expectedHertz > 0) return true;
    const asked = 'At what rotor speed does it turn? Type it first, like 3000.';
    read = { kind: 'refused', why: typedSpeed.kind === 'refused' && rpm.trim() ? typedSpeed.message : asked };
    return false;
  }

  /** Asks the oscilloscope for a trace: the clamp's amperes, or the post's volts; the tap's too where the check wants it. */
  async function onCapture(channel: 'amps' | 'volts') {
    if (!isSpeedTyped()) return;
    const curves = startWorker();
    const caught = await captureTrace(oscilloscope!.id, {
      seconds: captured.periods / expectedHertz,
      points: captured.periods * captured.samples,
      tap: method?.needsTap === true,
    });
    if ('why' in caught) read = { kind: 'refused', ...caught };
    else {
      const beside = caught.tap && { tap: caught.tap, volts: caught.volts };
      ({ read, tap } = await curves.captured(caught.secondsPerSample, caught[channel], beside, expectedHertz));
      patterns = await curves.patterns(bench.job.machine, typedRpm);
    }
    cancel();
  }

  async function onFile(event: Event & { currentTarget: HTMLInputElement }) {
    const file = event.currentTarget.files?.[0];
    event.currentTarget.value = '';
    if (!file || !isSpeedTyped()) return;
    const curves = startWorker();
    const telling = proxy((now: number) => (share = now));
    ({ read, tap } = await curves
      .trace(file, expectedHertz, method?.needsTap === true, telling)
      .catch((error: Error) => ({
        read: { kind: 'refused' as const, why: `${file.name} can’t be read: ${error.message}` },
        tap: undefined,
      })));
    if (read.kind === 'read') patterns = await curves.patterns(bench.job.machine, typedRpm);
    cancel();
  }

  function cancel() {
    worker?.terminate();
    worker = undefined;
    share = undefined;
  }

  $effect(() => cancel);

  async function record() {
    if (!pattern || read?.kind !== 'read') return;
    if (await bench.take({ kind: 'finding', finding: pattern.id }, spoken)) read = undefined;
  }

  $effect(() => {
    if (!periodCanvas || !ordersCanvas || read?.kind !== 'read') return;
    const colour = (name: string) => getComputedStyle(periodCanvas!).getPropertyValue(name);
    const [ink, copper, grid] = ['--color-base-content', '--color-primary', '--color-base-300'].map(colour);
    const axis = (text: string) => ({
      title: { display: true, text, color: ink! },
      ticks: { color: ink! },
      grid: { color: grid! },
    });
    const quiet = { animation: false as const, maintainAspectRatio: false, events: [] };
    const { period } = read;
    const charts = [
      new Chart(periodCanvas, {
        type: 'line',
        data: {
          datasets: [
            {
              data: period.map((y, i) => ({ x: i / period.length, y })),
              borderColor: copper!,
              borderWidth: 2,
              pointRadius: 0,
            },
          ],
        },
        options: {
          ...quiet,
          scales: { x: { type: 'linear', ...axis('One electrical period'), max: 1 }, y: axis('As measured') },
        },
      }),
      new Chart(ordersCanvas, {
        type: 'bar',
        data: {
          labels: shares.map(({ order }) => String(order)),
          datasets: [
            ...nearest.map((pattern, i) => ({
              type: 'line' as const,
              data: pattern.shares.map((one) => 100 * one),
              showLine: false,
              pointStyle: i === 0 ? ('triangle' as const) : ('circle' as const),
              pointRadius: 7,
              borderColor: copper!,
              borderWidth: 2,
              backgroundColor: i === 0 ? copper! : 'transparent',
            })),
            { data: shares.map(({ share: part }) => 100 * part), backgroundColor: ink! },
          ],
        },
        options: { ...quiet, scales: { x: axis('Order'), y: { ...axis('Of the ripple, %'), min: 0, max: 100 } } },
      }),
    ];
    return () => charts.forEach((chart) => chart.destroy());
  });
</script>

<div class="mt-3 flex flex-wrap items-end gap-3">
  <label class="flex flex-col text-sm">
    Taken at, rpm
    <input class="figure input h-11 w-28" inputmode="numeric" bind:value={rpm} />
  </label>
  <label class="flex flex-col text-sm">
    Pole pairs
    <select class="select h-11 w-20" bind:value={polePairs}>
      {#each Array.from({ length: 11 }, (_, n) => n + 2) as pairs (pairs)}<option value={pairs}>{pairs}</option>{/each}
    </select>
  </label>
  <label class="flex flex-col text-sm">
    Oscilloscope’s file: {method?.needsTap ? 'time, clamp, post, tap' : 'time and value'}
    <input class="file-input h-11" type="file" accept=".csv,.txt,text/csv,text/plain" onchange={onFile} />
  </label>
  {#if oscilloscope && method?.needsTap}
    <button class="btn min-h-11" onclick={() => void onCapture('amps')}
      >From the oscilloscope: clamp, post and tap</button
    >
  {:else if oscilloscope}
    <div class="flex gap-2">
      <button class="btn min-h-11" onclick={() => void onCapture('amps')}>From the oscilloscope: clamp</button>
      <button class="btn min-h-11" onclick={() => void onCapture('volts')}>post volts</button>
    </div>
  {/if}
  {#if share !== undefined}
    <progress class="progress w-40" value={share} max="1" aria-label="Reading the file"></progress>
    <button class="btn min-h-11" onclick={cancel}>Stop</button>
  {/if}
</div>
{#if read?.kind === 'refused'}
  <p role="alert" class="mt-2 border-l-4 border-error px-3 py-1">{read.why}</p>
{:else if read}
  <div class="mt-2 grid grid-cols-2 gap-2">
    <div class="relative h-40" role="img" aria-label="One electrical period, mean of {read.periods}">
      <canvas bind:this={periodCanvas}></canvas>
    </div>
    <div class="relative h-40" role="img" aria-label="Orders: {spoken}"><canvas bind:this={ordersCanvas}></canvas></div>
  </div>
  <p class="mt-1 text-sm">
    {read.periods} periods at {read.electricalHertz.toFixed(1)} Hz: {speed.toFixed(0)} rpm with {polePairs} pole pairs{Math.abs(
      speed / typedRpm - 1,
    ) > 0.02
      ? `, ${Math.abs(100 * (1 - speed / typedRpm)).toFixed(0)} % ${speed < typedRpm ? 'below' : 'above'} what was typed: does the belt slip?`
      : ''}.
  </p>
  {#if nearest.length}
    <p class="text-sm">
      Bars: read. ▲ {nearest[0]!.name}, the nearest of what we know{nearest[1] ? `; ○ ${nearest[1].name}` : ''}.
    </p>
  {/if}
  {#if pattern}
    <button class="btn mt-1 min-h-11 btn-primary" onclick={() => void record()}>Record: {pattern.name}</button>
  {:else}
    <p class="mt-1 border-l-4 border-warning px-3 py-1">
      These orders fit no pattern we know: look at the trace and choose above, or take it again.
    </p>
  {/if}
{/if}
