<script lang="ts">
  import { courseNames } from '@refectum/core/verdict';
  import { format } from 'date-fns';
  import { dayOf } from '$lib/dates.ts';
  import { complaintName, type TagFacts } from '$lib/job.ts';

  interface Props {
    facts: TagFacts;
    /** One line across the page instead of a card. */
    wide?: boolean;
  }
  const { facts, wide = false }: Props = $props();
  const overdue = $derived(
    facts.due !== null && facts.stand !== 'gone' && facts.due < format(new Date(), 'yyyy-MM-dd'),
  );
  const readings = $derived(`${facts.readings} ${facts.readings === 1 ? 'reading' : 'readings'}`);
</script>

<div class="tag" class:wide>
  <span class="hole" aria-hidden="true"></span>
  <span class="figure number">{facts.tag}</span>
  {#if wide}
    <span class="min-w-0 text-sm leading-tight">
      <span class="block truncate"><strong>{facts.model}</strong>, {facts.customer}</span>
      {@render wrong()}
    </span>
  {:else}
    <span class="min-w-0">
      <span class="block truncate font-semibold">{facts.model}</span>
      <span class="block truncate">{facts.customer}</span>
    </span>
    <span class="col-span-2 min-w-0">{@render wrong()}</span>
  {/if}
</div>

{#snippet wrong()}
  {@const told = `${complaintName(facts.complaint)}${facts.words ? `: ${facts.words}` : ''}`}
  <span class="block truncate" title={told}>{told}</span>
  <span class="block truncate text-sm leading-tight">
    {facts.decision ? `${courseNames[facts.decision.course]}, ${facts.decision.technician}` : readings}{#if facts.due}, {#if overdue}<strong
          >overdue since {dayOf(facts.due)}</strong
        >{:else}due {dayOf(facts.due)}{/if}{/if}
  </span>
{/snippet}

<style>
  .tag {
    --corner: polygon(16px 0, 100% 0, 100% 100%, 16px 100%, 0 calc(100% - 16px), 0 16px);
    position: relative;
    isolation: isolate;
    display: grid;
    grid-template-columns: auto minmax(0, 1fr);
    gap: 0.1rem 0.9rem;
    align-items: center;
    padding: 0.45rem 0.9rem 0.45rem 2.3rem;
    background: var(--color-base-content);
    clip-path: var(--corner);
  }
  /* The card itself, on an edge of ink. */
  .tag::before {
    content: '';
    position: absolute;
    inset: 1.5px;
    z-index: -1;
    background: var(--color-base-200);
    clip-path: var(--corner);
  }
  .tag.wide {
    padding-block: 0.3rem;
  }
  .hole {
    position: absolute;
    left: 0.7rem;
    top: 50%;
    width: 0.95rem;
    height: 0.95rem;
    margin-top: -0.475rem;
    border-radius: 50%;
    background: var(--color-base-100);
    border: 1.5px solid var(--color-base-content);
  }
  .number {
    font-size: 1.9rem;
    line-height: 1;
    font-weight: 600;
  }
</style>
