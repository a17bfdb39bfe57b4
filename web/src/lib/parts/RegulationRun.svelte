<script lang="ts">
  import type { Check } from '@refectum/core/checks';
  import { formatQuantity } from '@refectum/core/quantity';
  import type { Bench } from '$lib/live/bench.svelte.ts';
  import type { Regulation, StandInstruments } from '$lib/live/stand-instruments.svelte.ts';

  interface Props {
    bench: Bench;
    check: Check;
    live: StandInstruments;
    ratedAmps: number;
  }
  const { bench, check, live, ratedAmps }: Props = $props();
  /** Of its volts: further apart within a second is no regulating any more [our estimate]. */
  const swinging = 0.02;
  let seen = $state.raw<Regulation>();

  const method = $derived(check.method.kind === 'finding' ? check.method : undefined);
  const found = $derived.by(() => {
    if (!seen || !method?.watched) return undefined;
    if (seen.swing > swinging * seen.light) return 'unsteady';
    const volts = [seen.light, seen.heavy, seen.back];
    return method.watched({ low: Math.min(...volts), high: Math.max(...volts) }, bench.setting.celsius);
  });
  const outcome = $derived(method?.outcomes.find(({ id }) => id === found));
  const volts = (value: number) => formatQuantity(value, 'volts', 0.01);
  const spoken = $derived(
    seen ? `${volts(seen.light)} light, ${volts(seen.heavy)} heavy, ${volts(seen.back)} back` : '',
  );

  async function onRun() {
    seen = undefined;
    seen = await live.regulation(ratedAmps / 2);
  }
  async function record() {
    if (outcome && (await bench.take({ kind: 'finding', finding: outcome.id }, spoken))) seen = undefined;
  }
</script>

<div class="mt-3">
  <button class="btn min-h-11" disabled={live.doing !== ''} onclick={() => void onRun()}>
    From the instruments: light, heavy, light
  </button>
  {#if seen}
    <dl class="figure mt-2 grid grid-cols-[auto_auto] justify-start gap-x-4">
      <dt class="font-sans">Light load</dt>
      <dd>{volts(seen.light)}</dd>
      <dt class="font-sans">{ratedAmps / 2} A more</dt>
      <dd>{volts(seen.heavy)}, there after {seen.settled.toFixed(1)} s</dd>
      <dt class="font-sans">Light again</dt>
      <dd>{volts(seen.back)}</dd>
      <dt class="font-sans">Swings within a second</dt>
      <dd>{formatQuantity(seen.swing, 'volts')}</dd>
      <dt class="font-sans">Charges from</dt>
      <dd>{seen.cutInRpm === undefined ? 'no speed up to 2 000 rpm' : `${seen.cutInRpm} rpm`}</dd>
    </dl>
    {#if outcome}
      <button class="btn mt-1 min-h-11 btn-primary" onclick={() => void record()}>Record: {outcome.name}</button>
    {/if}
  {/if}
</div>
