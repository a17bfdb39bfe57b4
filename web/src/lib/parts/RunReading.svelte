<script lang="ts">
  import type { Check, RunSetup } from '@refectum/core/checks';
  import { formatNumber, formatQuantity } from '@refectum/core/quantity';
  import type { Bench } from '$lib/live/bench.svelte.ts';
  import type { StandInstruments } from '$lib/live/stand-instruments.svelte.ts';

  interface Props {
    bench: Bench;
    check: Check;
    setup: RunSetup;
    live: StandInstruments;
  }
  const { bench, check, setup, live }: Props = $props();
  let problem = $state('');

  /** How far speed and volts may lie from what the check wants [our estimate]. */
  const speedShare = 0.02;
  const voltsShare = 0.015;

  /** Sets speed and load as the check wants them; the jumper is the hand's. */
  async function onSet() {
    problem = '';
    await live.turnLoaded(setup.held.rpm!, setup.held.volts!);
  }
  async function onTake() {
    const { rested } = live;
    problem = '';
    if ('restless' in rested) problem = `Not taken: ${rested.restless}.`;
    else if (Math.abs(rested.rpm / setup.held.rpm! - 1) > speedShare)
      problem = `Not taken: it turns at ${formatNumber(rested.rpm, 0)} rpm, ${formatNumber(setup.held.rpm!, 0)} are wanted.`;
    else if (Math.abs(rested.volts / setup.held.volts! - 1) > voltsShare)
      problem = `Not taken: the post holds ${formatQuantity(rested.volts, 'volts', 0.01)}, ${setup.held.volts!} V are wanted.`;
    else {
      const value = Number(Math.max(0, rested.amps).toFixed(1));
      const typed = `${formatQuantity(value, check.unit)}, from the clamp`;
      if (await bench.take({ kind: 'value', value }, typed)) await live.stop();
    }
  }
</script>

<div class="mt-2 flex flex-wrap items-center gap-2">
  <button class="btn min-h-11" disabled={!live.listens} onclick={() => void onSet()}>
    {formatNumber(setup.held.rpm!, 0)} rpm, load to {setup.held.volts!} V
  </button>
  <button class="btn min-h-11" disabled={!live.listens} onclick={() => void onTake()}>Take the clamp’s reading</button>
  {#if problem}<p role="alert" class="w-full border-l-4 border-error px-2 text-sm">{problem}</p>{/if}
</div>
