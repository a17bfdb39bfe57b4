<script lang="ts">
  import { formatQuantity } from '@refectum/core/quantity';
  import { isFree, keysOn } from '$lib/keys.ts';
  import type { ShopInstrument } from '$lib/instruments.ts';
  import type { Bench } from '$lib/live/bench.svelte.ts';
  import { HandsFree } from '$lib/live/hands-free.svelte.ts';
  import { tellInstrument } from '$lib/live/live-words.ts';

  interface Props {
    bench: Bench;
    /** Multimeters at a port. */
    instruments: readonly ShopInstrument[];
    /** Whether the hands are simulated here. */
    simulated: boolean;
    tag: number;
    /** A bench supply at a port, for tests under current. */
    supply: ShopInstrument | undefined;
  }
  const { bench, instruments, simulated, tag, supply }: Props = $props();
  const openKey = 'refectum-open-counts';
  const hands = new HandsFree(() => bench);
  let chosen = $state<string>();

  const instrument = $derived(instruments.find(({ id }) => id === chosen) ?? instruments[0]);
  const shown = $derived.by(() => {
    const { word } = hands;
    if (!word) return '–';
    return word.value === null ? 'OL' : formatQuantity(word.value, word.use === 'ohms' ? 'ohms' : 'volts');
  });

  $effect(() => {
    hands.openCounts = localStorage.getItem(openKey) === '1';
    return () => hands.stop();
  });
  $effect(() => {
    // Another unit on screen is another unit in hand.
    void tag;
    return () => hands.stop();
  });

  const toggle = () => (hands.on ? hands.stop() : instrument && void hands.start(instrument));
  function onOpenCounts(event: Event & { currentTarget: HTMLInputElement }) {
    hands.openCounts = event.currentTarget.checked;
    localStorage.setItem(openKey, hands.openCounts ? '1' : '0');
  }

  /** What the hands of the simulated bench do: the probes where the drawing has them, the supply on where it feeds. */
  async function moveProbes() {
    const { check } = bench;
    if (!check) return;
    const { method } = check;
    const setup = method.kind === 'meter' ? method.setup : undefined;
    const problem = await tellInstrument('/api/hands', {
      tag,
      ...(setup ? { red: setup.red, black: setup.black } : {}),
      ...(setup?.feed ? { feed: setup.feed } : {}),
      ...(method.kind === 'run' ? method.setup.probes : {}),
      together: method.kind === 'leads',
      assembly: bench.stateFor(check),
      jumper: method.kind === 'run',
    });
    if (problem) hands.said = problem;
    else if (supply) await tellInstrument(`/api/instruments/${supply.id}/set`, { tag, on: setup?.feed !== undefined });
  }

  function onKey(event: KeyboardEvent) {
    if (event.ctrlKey || event.altKey || event.metaKey || event.defaultPrevented || !keysOn()) return;
    const onButton = (event.target as HTMLElement).closest('button, a, summary') !== null;
    if (!isFree(event) || (event.key === ' ' && onButton)) return;
    if (event.key === 'h') toggle();
    else if (event.key === ' ' && hands.on) void hands.pedal();
    else if (event.key === 'p' && simulated) void moveProbes();
    else return;
    event.preventDefault();
  }
</script>

<svelte:window onkeydown={onKey} />

{#if instrument}
  <section class="sheet flex flex-wrap items-center gap-x-4 gap-y-1 p-3" aria-label="Hands free">
    <button class="btn min-h-11" class:btn-primary={hands.on} aria-pressed={hands.on} onclick={toggle}>
      <span class="figure">h</span> Hands free
    </button>
    {#if !hands.on && instruments.length > 1}
      <label class="flex items-center gap-2 text-sm">
        with
        <select class="select h-11 w-48" bind:value={chosen}>
          {#each instruments as { id, name } (id)}<option value={id}>{name}</option>{/each}
        </select>
      </label>
    {/if}
    {#if hands.on}
      <output class="figure min-w-28 text-3xl" aria-label="Live reading">{shown}</output>
      <p class="min-w-48 grow basis-64" role="status">
        {#if hands.taken}
          <span class="figure">{hands.taken.shown}</span> <strong>{hands.taken.word}</strong>.
        {/if}
        {hands.away ? 'The server is away: the readings come again by themselves.' : hands.said}
      </p>
      {#if hands.wrongUse}
        <button class="btn min-h-11" onclick={() => void hands.setMeter()}>Set it from here</button>
      {/if}
      <p class="flex w-full flex-wrap items-center gap-x-4 text-sm">
        <button class="min-h-9 link" onclick={() => void hands.pedal()}>
          <span class="figure">space</span> or pedal: take it now
        </button>
        <label class="flex min-h-9 items-center gap-2">
          <input type="checkbox" class="checkbox checkbox-sm" checked={hands.openCounts} onchange={onOpenCounts} />
          an open held for 4 s counts as OL
        </label>
        {#if simulated}
          <button class="min-h-9 link" onclick={() => void moveProbes()}>
            <span class="figure">p</span> simulated hands: to the next point
          </button>
        {/if}
      </p>
    {:else}
      <p class="text-sm">Hold the probes still, the reading is taken, a tone tells its verdict.</p>
    {/if}
  </section>
{/if}
