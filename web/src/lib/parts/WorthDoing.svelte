<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { Bench } from '$lib/live/bench.svelte.ts';

  interface Props {
    bench: Bench;
    /** What to say when no check pays any more. */
    stopped: Snippet;
  }
  const { bench, stopped }: Props = $props();
</script>

{#if bench.outlook}
  <section class="sheet p-3" aria-label="Worth doing next">
    {#if bench.outlook.stop}<div class="border-l-4 border-success px-3 py-1">{@render stopped()}</div>{/if}
    <h2 class="font-semibold">Worth doing next</h2>
    <ol>
      {#each bench.outlook.next.filter((n) => n.check !== bench.check?.id).slice(0, 4) as n (n.check)}
        <li>
          <button
            class="flex min-h-11 w-full items-center gap-3 px-2 text-left hover:bg-base-200"
            onclick={() => void bench.pick(n.check)}
          >
            <span class="grow">{n.name}</span>
            <span class="figure shrink-0 text-sm">{n.minutes}{n.setupMinutes ? ` + ${n.setupMinutes}` : ''} min</span>
          </button>
        </li>
      {/each}
    </ol>
  </section>
{/if}
