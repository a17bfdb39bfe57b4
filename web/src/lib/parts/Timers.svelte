<script lang="ts">
  import { timed, timers } from '$lib/live/timers.svelte.ts';

  const clock = (seconds: number) => `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
</script>

<section class="sheet p-3" aria-label="Timers">
  <div class="flex flex-wrap gap-2">
    {#each timed as { id, name, seconds } (id)}
      {@const left = timers.left(id)}
      <button
        class="btn min-h-11 px-3"
        class:btn-primary={left !== undefined}
        onclick={() => (left === undefined ? timers.start(id) : timers.stop(id))}
      >
        {name}
        <span class="figure" role={left === undefined ? undefined : 'timer'}>{clock(left ?? seconds)}</span>
      </button>
    {/each}
  </div>
  <p class="mt-1 min-h-5 text-sm" role="status">{timers.said}</p>
</section>
