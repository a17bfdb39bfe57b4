<script lang="ts">
  import type { StandInstruments } from '$lib/live/stand-instruments.svelte.ts';

  interface Props {
    live: StandInstruments;
    /** Each by its name, as it is shown. */
    figures: readonly (readonly [name: string, value: string])[];
    /** What taking everything off is called here, and does. */
    off: { readonly name: string; readonly act: () => Promise<void> };
    problem: string;
    /** What is being done by itself; empty when nothing is. */
    doing: string;
  }
  const { live, figures, off, problem, doing }: Props = $props();
</script>

<!-- What went wrong, and the way to stop, stand above all that may be set: in sight on any screen. -->
<div class="flex items-center justify-between gap-2">
  <h2 class="text-xl font-semibold">Instruments</h2>
  <button class="btn min-h-11 shrink-0 btn-error" disabled={!live.listens} onclick={() => void off.act()}>
    <span class="figure">Esc</span>
    {off.name}
  </button>
</div>
{#if problem}<p role="alert" class="my-1 border-l-4 border-error px-2 text-sm">{problem}</p>{/if}
<dl class="figure mt-1 grid grid-cols-2 gap-x-3" aria-live="off">
  {#each figures as [name, value] (name)}
    <div class="flex items-baseline justify-between border-b border-base-300 py-1">
      <dt class="font-sans text-sm">{name}</dt>
      <dd class="text-lg">{value}</dd>
    </div>
  {/each}
</dl>
{#if live.away}<p role="status" class="mt-1 text-sm">The server is away: the values come again by themselves.</p>{/if}
{#each live.gone as why, i (i)}<p role="status" class="mt-1 border-l-4 border-warning px-2 text-sm">{why}.</p>{/each}
<p role="status" class="min-h-6 text-sm">{doing}</p>
