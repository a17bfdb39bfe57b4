<script lang="ts">
  import { parseQuantity, type Unit } from '@refectum/core/quantity';
  import type { Snippet } from 'svelte';

  export interface Asked {
    readonly id: string;
    readonly label: string;
    readonly unit: Unit;
    readonly value: string;
  }
  interface Props {
    id: string;
    name: string;
    asked: readonly Asked[];
    /** The answer as sentences from the numbers in their order; a RangeError is told as it is. */
    answer: (numbers: readonly number[]) => readonly string[];
    source: string;
    children?: Snippet;
  }
  const { id, name, asked, answer, source, children }: Props = $props();
  let typed = $state<Record<string, string>>({});

  const read = $derived(asked.map((one) => parseQuantity(typed[one.id] ?? one.value, one.unit)));
  const problems = $derived(
    read.map((one) =>
      one.kind === 'refused' ? one.message : one.kind === 'over-range' ? 'A number is needed here.' : '',
    ),
  );
  const lines = $derived.by((): readonly string[] => {
    const numbers = read.flatMap((one) => (one.kind === 'value' ? [one.value] : []));
    if (numbers.length < asked.length) return [];
    try {
      return answer(numbers);
    } catch (cause) {
      if (cause instanceof RangeError) return [cause.message];
      throw cause;
    }
  });
</script>

<section class="sheet p-4" aria-labelledby="{id}-name">
  <h2 id="{id}-name" class="text-xl font-semibold">{name}</h2>
  <div class="mt-2 flex flex-wrap items-end gap-3">
    {#each asked as one, i (one.id)}
      <div class="flex w-32 flex-col justify-end">
        <label for="{id}-{one.id}">{one.label}</label>
        <input
          id="{id}-{one.id}"
          class="figure input w-full"
          type="text"
          inputmode="decimal"
          autocomplete="off"
          value={typed[one.id] ?? one.value}
          oninput={(event) => (typed[one.id] = event.currentTarget.value)}
          aria-invalid={problems[i] ? 'true' : undefined}
          aria-describedby="{id}-{one.id}-told"
        />
        <p id="{id}-{one.id}-told" class="min-h-5 text-sm text-error">{problems[i]}</p>
      </div>
    {/each}
    {@render children?.()}
  </div>
  <div role="status" class="text-lg">
    {#each lines as line, i (i)}<p>{line}</p>{/each}
  </div>
  <p class="mt-1 text-sm">{source}</p>
</section>
