<script lang="ts">
  import type { Blame } from '@refectum/core/blame';
  import { percent } from '$lib/percent.ts';

  const { blame, tag }: { blame: Blame; tag: number } = $props();
  const words: Readonly<Record<Blame['course'], string>> = {
    bench: 'Bench it: the unit is to blame',
    clear: 'Bench it: the vehicle can’t clear it',
    return: 'Return as is',
    ask: 'Ask or measure more',
  };
</script>

<section aria-label="Where the fault lies" class="sheet p-3">
  <h2 class="text-xl leading-tight font-semibold">{words[blame.course]}</h2>
  <p class="mt-1 text-sm">{blame.reason}</p>
  {#if blame.course === 'return'}
    <a class="btn mt-2 btn-primary" href="/unit/{tag}/letter">Letter to the customer</a>
  {:else if blame.course !== 'ask'}
    <a class="btn mt-2 btn-primary" href="/unit/{tag}">To the bench</a>
  {/if}
  <ul class="mt-2">
    {#each blame.places as { id, name, chance } (id)}
      <li class="py-1" class:font-semibold={id === 'unit'}>
        <span class="flex items-baseline justify-between gap-2">
          <span>{id === 'unit' ? 'The unit itself' : name}</span>
          <span class="figure shrink-0">{percent(chance)} %</span>
        </span>
        <span class="mt-0.5 block h-1.5 w-full bg-base-300"
          ><span
            class="block h-full"
            class:bg-primary={id === 'unit'}
            class:bg-neutral={id !== 'unit'}
            style:width="{Math.max(100 * chance, 1)}%"
          ></span></span
        >
      </li>
    {/each}
  </ul>
</section>
