<script lang="ts">
  import type { Check, Watched } from '@refectum/core/checks';
  import { formatNumber, formatQuantity } from '@refectum/core/quantity';
  import type { Bench } from '$lib/live/bench.svelte.ts';
  import { type CourseRead, readCourse } from '$lib/live/stand-courses.ts';
  import type { StandInstruments } from '$lib/live/stand-instruments.svelte.ts';

  interface Props {
    bench: Bench;
    check: Check;
    watched: Watched;
    live: StandInstruments;
    commanderHertz: number | undefined;
  }
  const { bench, check, watched, live, commanderHertz }: Props = $props();
  /** Of its volts: further apart within a second is no regulating any more [our estimate]. */
  const swinging = 0.02;
  let read = $state.raw<CourseRead>();

  const outcomes = $derived(check.method.kind === 'finding' ? check.method.outcomes : []);
  const found = $derived.by(() => {
    if (!read) return undefined;
    const swings = read.states.some(({ swing, volts }) => swing > swinging * volts);
    if (swings && outcomes.some(({ id }) => id === 'unsteady')) return 'unsteady';
    return watched.says(
      read.states.map(({ volts }) => volts),
      bench.setting.celsius,
    );
  });
  const outcome = $derived(outcomes.find(({ id }) => id === found));
  const volts = (value: number) => formatQuantity(value, 'volts', 0.01);
  const spoken = $derived(
    read?.states.map((state) => `${volts(state.volts)} ${state.name.toLowerCase()}`).join(', ') ?? '',
  );

  async function onRun() {
    read = undefined;
    read = await readCourse(live, watched, commanderHertz);
  }
  async function record() {
    if (outcome && (await bench.take({ kind: 'finding', finding: outcome.id }, spoken))) read = undefined;
  }
</script>

<div class="mt-3">
  <button class="btn min-h-11" disabled={!live.listens || live.doing !== ''} onclick={() => void onRun()}>
    From the instruments: {watched.course?.map(({ name }) => name.toLowerCase()).join(', ')}
  </button>
  {#if read}
    <dl class="figure mt-2 grid grid-cols-[auto_auto] justify-start gap-x-4">
      {#each read.states as state, n (state.name)}
        <dt class="font-sans">{state.name}</dt>
        <dd>{volts(state.volts)}{n > 0 ? `, there after ${state.settled.toFixed(1)} s` : ''}</dd>
      {/each}
      <dt class="font-sans">Swings within a second</dt>
      <dd>{formatQuantity(Math.max(...read.states.map(({ swing }) => swing)), 'volts')}</dd>
      {#if read.cutIn !== undefined}
        <dt class="font-sans">Charges from</dt>
        <dd>{read.cutIn === 'never' ? 'no speed up to 2 000 rpm' : `${formatNumber(read.cutIn, 0)} rpm`}</dd>
      {/if}
      {#if read.cutOut !== undefined}
        <dt class="font-sans">Charges no more at</dt>
        <dd>{read.cutOut === 'never' ? 'no speed down to 500 rpm' : `${formatNumber(read.cutOut, 0)} rpm`}</dd>
      {/if}
    </dl>
    {#if outcome}
      <button class="btn mt-1 min-h-11 btn-primary" onclick={() => void record()}>Record: {outcome.name}</button>
    {/if}
  {/if}
</div>
