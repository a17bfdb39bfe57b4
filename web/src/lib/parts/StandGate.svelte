<script lang="ts">
  import type { Gate } from '@refectum/core/assess';
  import { whenOf } from '$lib/dates.ts';
  import { once } from '$lib/live/once.ts';
  import type { RunStand } from '$lib/live/run-stand.svelte.ts';

  interface Props {
    gate: Gate;
    stand: RunStand;
    tag: number;
    /** Whether the unit is on the stand. */
    mounted: boolean;
    /** How being there is said, and leaving it. */
    said: { readonly there: string; readonly off: string };
    onmount: () => void;
    onunmount: () => void;
  }
  const { gate, stand, tag, mounted, said, onmount, onunmount }: Props = $props();
  const released = $derived(stand.released?.step.kind === 'released' ? stand.released.step : undefined);
  const open = $derived(gate.reasons.filter(({ id }) => !stand.answeredFor.includes(id)));
  const mayRun = $derived(open.length === 0);

  const release = once(async () => void (await stand.release(open.map(({ id }) => id))));

  function onRelease(event: SubmitEvent) {
    event.preventDefault();
    void release();
  }
</script>

<section class="sheet p-3" aria-label="Before it runs">
  <h2 class="flex items-center gap-2 text-xl font-semibold">
    <svg viewBox="0 0 24 24" class="size-6 shrink-0" aria-hidden="true">
      {#if gate.green}
        <circle cx="12" cy="12" r="10" class="fill-success" />
        <path d="M7 12.5l3.5 3.5L17 9" class="fill-none stroke-success-content" stroke-width="2.5" />
      {:else}
        <rect x="2" y="2" width="20" height="20" class="fill-error" />
        <path d="M7 7l10 10M17 7L7 17" class="stroke-error-content" stroke-width="2.5" />
      {/if}
    </svg>
    {gate.green ? 'Green: it may run' : 'Red: it may not run yet'}
  </h2>
  {#if gate.reasons.length}
    <ul class="mt-1">
      {#each gate.reasons as { id, why } (id)}<li class="border-t border-base-300 py-1.5 text-sm">
          {why}{stand.answeredFor.includes(id) ? ' Answered for.' : ''}
        </li>{/each}
    </ul>
    <p class="text-sm"><a class="link" href="/unit/{tag}">Back to the bench for these</a></p>
  {/if}
  {#if released}
    <p class="mt-2 border-l-4 border-warning px-3 py-1 text-sm">
      {stand.released!.technician}, {whenOf(stand.released!.at)}, answers for it: “{released.why}”
    </p>
  {/if}
  {#if open.length}
    <details class="mt-1">
      <summary class="min-h-9 cursor-pointer py-1.5 text-sm">
        {released ? 'Something came up since: run it all the same' : 'Run it all the same'}
      </summary>
      <form class="flex flex-col gap-1" onsubmit={onRelease}>
        <label class="text-sm" for="why">Why, with your name beside it</label>
        <input
          id="why"
          class="input w-full"
          bind:value={stand.why}
          aria-invalid={stand.problems.why ? 'true' : undefined}
          aria-describedby="why-told"
        />
        <p id="why-told" class="min-h-5 text-sm text-error">{stand.problems.why ?? ''}</p>
        <button class="btn min-h-11" disabled={!stand.mayWrite}>I answer for it</button>
      </form>
    </details>
  {/if}
  <button
    class="btn mt-2 min-h-11 w-full"
    class:btn-primary={mayRun && !mounted}
    disabled={!stand.mayWrite || (!mounted && !mayRun)}
    onclick={mounted ? onunmount : onmount}
  >
    {mounted ? said.off : said.there}
  </button>
</section>
