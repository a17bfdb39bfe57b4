<script lang="ts">
  import { familyOf } from '@refectum/core/machines';
  import { courseNames } from '@refectum/core/verdict';
  import { dayOf } from '$lib/dates.ts';
  import { type Job, standing } from '$lib/job.ts';

  interface Props {
    job: Job;
    /** One line across the page instead of a card. */
    wide?: boolean;
  }
  const { job, wide = false }: Props = $props();
  const complaint = $derived(familyOf(job.machine).complaints.find((c) => c.id === job.complaint)?.name ?? '');
  const decision = $derived(job.verdicts.at(-1));
  const readings = $derived(standing(job, 'bench').length);
</script>

<div class="tag" class:wide>
  <span class="hole" aria-hidden="true"></span>
  <span class="figure number">{job.tag}</span>
  <span class="min-w-0">
    <span class="block truncate font-semibold">{job.model}</span>
    <span class="block truncate">{job.customer}</span>
  </span>
  <span class={wide ? 'min-w-0' : 'col-span-2 min-w-0'}>
    <span class="block truncate">{complaint}{job.words ? `: ${job.words}` : ''}</span>
    <span class="block truncate text-sm">
      {#if decision}
        {courseNames[decision.course]}, {decision.technician}
      {:else}
        {readings} {readings === 1 ? 'reading' : 'readings'}{job.due ? `, due ${dayOf(job.due)}` : ''}
      {/if}
    </span>
  </span>
</div>

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
    grid-template-columns: auto minmax(0, 1fr) minmax(0, 1.2fr);
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
