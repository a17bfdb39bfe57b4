<script lang="ts">
  import type { AssessedVerdict } from '@refectum/core/assess';
  import { formatChance } from '@refectum/core/quantity';
  import type { CourseId } from '@refectum/core/verdict';

  interface Props {
    verdict: AssessedVerdict;
    chosen: CourseId | undefined;
    onchoose: ((course: CourseId) => void) | undefined;
  }
  const { verdict, chosen, onchoose }: Props = $props();
</script>

<div class="grid gap-3 md:grid-cols-4" role="group" aria-label="What can be done">
  {#each verdict.courses as course (course.id)}
    {@const recommended = verdict.recommended === course.id}
    <section class={['sheet flex flex-col p-3', recommended && 'border-2 border-primary']} aria-label={course.name}>
      <h2 class="text-xl font-semibold">{course.name}</h2>
      <p class="min-h-6 font-semibold text-primary">{recommended ? 'Recommended' : ''}</p>
      <dl class="my-1 grid grid-cols-[1fr_auto] gap-x-2">
        <dt>Parts and labour</dt>
        <dd class="figure text-right">{course.cost === undefined ? 'price unknown' : course.cost.toFixed(2)}</dd>
        <dt>Minutes</dt>
        <dd class="figure text-right">{course.minutes}</dd>
        <dt>Something stays wrong</dt>
        <dd class="figure text-right">{formatChance(course.risk)}</dd>
      </dl>
      {#if course.actions.length}
        <ol class="list-decimal pl-5 text-sm">
          {#each course.actions as action (action.kind + action.id)}
            <li class="py-0.5">
              {action.kind === 'replace' ? `Replace: ${action.name.toLowerCase()}` : `Repair: ${action.name}`}
              <span class="block">{action.why} ({formatChance(action.chance)})</span>
            </li>
          {/each}
        </ol>
      {/if}
      {#if course.unknownPrices.length}<p class="text-sm">No price for: {course.unknownPrices.join(', ')}.</p>{/if}
      {#if course.barred}<p class="mt-1 border-l-4 border-warning pl-2 text-sm">{course.barred}</p>{/if}
      <span class="grow"></span>
      {#if onchoose}
        <button
          type="button"
          class="btn mt-2"
          class:btn-primary={chosen === course.id}
          aria-pressed={chosen === course.id}
          onclick={() => onchoose(course.id)}
        >
          {chosen === course.id ? 'Chosen' : 'Choose'}
        </button>
      {/if}
    </section>
  {/each}
</div>
