<script lang="ts">
  import { formatNumber, formatQuantity } from '@refectum/core/quantity';
  import { isFree, keysOn } from '$lib/keys.ts';
  import type { Bench } from '$lib/live/bench.svelte.ts';
  import type { StandInstruments } from '$lib/live/stand-instruments.svelte.ts';
  import type { StarterRun } from '$lib/live/starter-run.svelte.ts';
  import { untrack } from 'svelte';
  import LiveHead from './LiveHead.svelte';

  interface Props {
    bench: Bench;
    live: StandInstruments;
    run: StarterRun;
    tag: number;
    mayWrite: boolean;
    /** What the hands of a simulated bench do; undefined where the bench is a real one. */
    hands: ((told: object) => Promise<unknown>) | undefined;
  }
  const { bench, live, run, tag, mayWrite, hands }: Props = $props();
  // A newer word of the server on the same unit is no reason to begin anew.
  const unit = $derived(tag);
  const writes = $derived(mayWrite);
  const check = $derived(bench.check);
  const pending = $derived(check ? run.pending(check) : []);
  const busy = $derived(run.doing !== '');
  const figures = $derived<readonly (readonly [string, string])[]>([
    ['Clamp', live.amps === undefined || live.amps === null ? '–' : formatQuantity(live.amps, 'amps', 1)],
    ['Probes', live.volts === undefined || live.volts === null ? '–' : formatQuantity(live.volts, 'volts', 0.001)],
    ['Pinion', live.rpm === undefined ? '–' : `${formatNumber(live.rpm, 0)} rpm`],
    ['Arm', live.words.stand ? `${live.words.stand.newtonMetres.toFixed(1)} Nm` : '–'],
  ]);

  $effect(() => {
    void unit;
    return live.listen();
  });
  $effect(() => {
    if (writes) untrack(() => void live.readVolts());
  });
  $effect(() => {
    if (writes) void hands?.({ red: 'main', black: 'case' });
    // Whoever leaves lets go of what this screen feeds, and of nothing that another does.
    return () => {
      if (run.doing) void run.stop();
    };
  });

  function onKey(event: KeyboardEvent) {
    if (event.ctrlKey || event.altKey || event.metaKey || event.defaultPrevented) return;
    if (event.key === 'Escape' && (live.live || busy)) void run.stop();
    else if (event.key === 'i' && keysOn() && isFree(event) && check && pending.length) {
      if (!busy) void run.read(check);
    } else return;
    event.preventDefault();
  }
</script>

<svelte:window onkeydown={onKey} />

<section class="sheet p-3" aria-label="Instruments">
  <LiveHead
    {live}
    {figures}
    off={{ name: 'Off', act: () => run.stop() }}
    problem={run.problem || live.problem}
    doing={run.doing}
  />
  <div class="mt-2 flex flex-wrap gap-2">
    <button
      class="btn min-h-11"
      disabled={!writes || !live.listens || !check || pending.length === 0 || busy}
      onclick={() => check && void run.read(check)}
    >
      <span class="figure">i</span> Feed and read {pending.length > 1 ? `these ${pending.length}` : 'it'}
    </button>
  </div>
  {#if check && pending.length > 1}
    <p class="mt-1 text-sm">In one run: {pending.map(({ name }) => name.replace(/^[^:]*: /, '')).join(', ')}.</p>
  {:else if check && pending.length === 0}
    <p class="mt-1 text-sm">
      {check.method.kind === 'finding' && check.method.turned
        ? `The check at hand is read from a trace: ${run.traceOf(tag) ? 'the last run’s is kept there' : 'feed it there'}.`
        : 'The check at hand is looked at, not read: pick one that is read by an instrument.'}
    </p>
  {/if}
</section>
