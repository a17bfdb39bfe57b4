<script lang="ts">
  import type { Snippet } from 'svelte';
  import { timed, timedAs, timers } from '$lib/live/timers.svelte.ts';

  interface Props {
    of: keyof typeof timed;
    /** The unit that is timed. */
    tag: number;
    /** Below the clocks. */
    children?: Snippet;
  }
  const { of, tag, children }: Props = $props();

  const clock = (seconds: number) => `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
</script>

<section class="sheet p-3" aria-label="Timers">
  <div class="flex flex-wrap gap-2">
    {#each timed[of] as id (id)}
      {@const { name, seconds } = timedAs(id)}
      {@const left = timers.left(id)}
      <button
        class="btn min-h-11 px-3"
        class:btn-primary={left !== undefined}
        onclick={() => (left === undefined ? timers.start(id, tag) : timers.stop(id))}
      >
        {name}
        <span class="figure" role={left === undefined ? undefined : 'timer'}>{clock(left ?? seconds)}</span>
      </button>
    {/each}
  </div>
  <p class="mt-1 min-h-5 text-sm" role="status">{timers.said}</p>
  {@render children?.()}
</section>
