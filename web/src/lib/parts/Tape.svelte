<script lang="ts">
  import { type Diagnosis, type JudgedReading, outcomeText } from '@refectum/core/assess';
  import type { Check } from '@refectum/core/checks';
  import { daysBeside, timeOf } from '$lib/dates.ts';
  import type { TakenReading } from '$lib/job.ts';
  import Mark from './Mark.svelte';

  interface Props {
    readings: readonly TakenReading[];
    checks: readonly Check[];
    diagnosis: Diagnosis | undefined;
    /** Of its readings, those that ask to be taken again, oldest first. */
    asking: readonly JudgedReading[];
    /** Ids that have not reached the server yet. */
    waiting: ReadonlySet<string>;
    onstrike: (reading: string) => void;
    onrepeat: (check: string) => void;
    /** What was read before the work. */
    earlier?: readonly TakenReading[];
  }
  const { readings, checks, diagnosis, asking, waiting, onstrike, onrepeat, earlier = [] }: Props = $props();

  const rows = $derived(
    readings
      .map((reading) => {
        const check = checks.find((c) => c.id === reading.check);
        return { reading, check, judged: diagnosis?.readings.find((j) => j.id === reading.id) };
      })
      .reverse(),
  );
  const days = $derived(
    daysBeside(
      rows.map(({ reading }) => reading.at),
      new Date(),
    ),
  );
  const isNumber = ({ outcome: { kind } }: TakenReading) => kind === 'value' || kind === 'over-range';
</script>

<section aria-label="Tape" class="tape">
  <h2 class="font-semibold">Tape</h2>
  <ol reversed class="pb-2">
    {#each rows as { reading, check, judged }, i (reading.id)}
      <li class="border-b border-dashed border-base-300 py-1" class:struck={reading.struck}>
        {#if days[i]}<span class="inline-block w-full text-sm font-semibold">{days[i]}</span>{/if}
        <p class="flex items-start gap-2">
          <span class="min-w-0 grow pt-1 text-sm leading-tight">{check?.name ?? reading.check}</span>
          {#if waiting.has(reading.id)}<span class="late text-sm" title="On its way to the server">↥ waiting</span>{/if}
          {#if !reading.struck}
            <button
              class="strike"
              aria-label="Strike out: {check?.name} {judged?.shown ?? ''}"
              onclick={() => onstrike(reading.id)}>strike</button
            >
          {/if}
        </p>
        <p class="flex items-center gap-2">
          <span class="figure text-sm">{timeOf(reading.at)}</span>
          <span class={['grow leading-tight font-semibold', isNumber(reading) && 'figure text-lg']}
            >{check ? outcomeText(check, reading.outcome) : reading.typed}</span
          >
          {#if reading.struck}
            <span class="text-sm">struck out, {reading.struck.technician}</span>
          {:else if judged}
            <Mark word={judged.word} /> <span>{judged.word}</span>
          {/if}
        </p>
        {#if reading.told !== 'own'}
          <p class="text-sm">{reading.told === 'shop' ? 'told by another shop' : 'told by the customer'}</p>
        {/if}
        {#if judged && !reading.struck}
          {#if judged.then}<p class="text-sm">{judged.then}</p>{/if}
          {#if judged.net}<p class="text-sm">{judged.net}</p>{/if}
          {#if judged.aside}<p class="text-sm">{judged.aside}</p>{/if}
          {#if asking.includes(judged)}
            <p class="border-l-4 border-warning pl-2 text-sm">
              {judged.repeat}
              <button class="link" onclick={() => onrepeat(judged.check)}
                >{#if judged === asking.at(-1)}<span class="figure">a</span>{/if} Take it again</button
              >
            </p>
          {/if}
        {/if}
      </li>
    {:else}
      <li class="py-2">No reading yet. Type one: it lands here.</li>
    {/each}
  </ol>
  {#if earlier.length}
    <details>
      <summary class="min-h-11 cursor-pointer py-2.5">Before the work: {earlier.length}</summary>
      <ol class="pb-2 text-sm">
        {#each earlier as reading (reading.id)}
          {@const check = checks.find((c) => c.id === reading.check)}
          <li class="flex gap-2 border-b border-dashed border-base-300 py-1">
            <span class="grow">{check?.name ?? reading.check}</span>
            <span class="figure shrink-0">{check ? outcomeText(check, reading.outcome) : reading.typed}</span>
          </li>
        {/each}
      </ol>
    </details>
  {/if}
</section>

<style>
  /* A moment on the way is no news. */
  .late {
    animation: late 0s 1s backwards;
  }
  @keyframes late {
    from {
      position: absolute;
      visibility: hidden;
    }
  }
  .struck {
    text-decoration: line-through;
    text-decoration-thickness: 2px;
  }
  .strike {
    padding: 0.15rem 0.5rem;
    min-height: 1.75rem;
    text-decoration: underline;
    font-size: 0.875rem;
  }
</style>
