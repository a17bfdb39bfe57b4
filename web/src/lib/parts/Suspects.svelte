<script lang="ts">
  import type { Apart, Diagnosis, Suspect } from '@refectum/core/assess';
  import { percent } from '$lib/percent.ts';
  import UnlikeKind from './UnlikeKind.svelte';

  interface Props {
    diagnosis: Diagnosis;
    /** What would tell any two of them apart. */
    apart: readonly Apart[] | undefined;
    /** Only suspects of this part, when one is touched. */
    part: string | undefined;
  }
  const { diagnosis, apart, part }: Props = $props();

  const listed = $derived(diagnosis.suspects.filter((suspect) => (part ? suspect.part === part : true)));
  const touched = $derived(diagnosis.parts.find((p) => p.id === part));

  const strength = (bits: number): string => {
    const size = Math.abs(bits);
    const word = size < 1 ? 'slightly' : size < 3.3 ? 'clearly' : 'strongly';
    return `${word} ${bits > 0 ? 'for' : 'against'}`;
  };
  /** The two likeliest, neither of them "nothing more wrong" where there are two. */
  const first = $derived(apart?.find(({ between }) => !between.includes('nothing')) ?? apart?.[0]);
  const rivalsOf = (fault: string) =>
    (apart ?? [])
      .filter(({ between }) => between.includes(fault))
      .map((told) => ({ name: told.names[told.between[0] === fault ? 1 : 0], by: byWhat(told) }));
  const byWhat = ({ name, clearly }: Apart): string => {
    if (name === undefined) return 'no check here does';
    return clearly ? name : `only hinted at, by “${name}”`;
  };
  const barWidth = (suspect: Suspect) => `${Math.max(100 * suspect.chance, 1)}%`;
</script>

<section aria-label="Suspects">
  <h2 class="flex items-baseline justify-between font-semibold">
    <span>{touched ? `Suspects: ${touched.name}` : 'Suspects'}</span>
    <span class="text-sm font-normal whitespace-nowrap"
      >nothing wrong: <span class="figure">{percent(diagnosis.sound)} %</span></span
    >
  </h2>
  <UnlikeKind {diagnosis} />
  <ul>
    {#each listed as suspect (suspect.fault)}
      <li class="border-b border-base-300">
        <details>
          <summary class="flex min-h-11 cursor-pointer flex-col justify-center py-1">
            <span class="flex items-baseline justify-between gap-2">
              <span>{suspect.name}</span>
              <span class="figure shrink-0">{percent(suspect.chance)} %</span>
            </span>
            <span class="mt-1 block h-1.5 w-full bg-base-300"
              ><span class="block h-full bg-primary" style:width={barWidth(suspect)}></span></span
            >
          </summary>
          <div class="pb-2 text-sm">
            {#if suspect.severity}<p>How bad: {suspect.severity}.</p>{/if}
            <!-- Two points of an output at one speed go by one id. -->
            {#each suspect.evidence as { check, shown, bits }, i (i)}
              <p class="flex items-center justify-between gap-2">
                <span class="min-w-0">{check}: <span class="figure">{shown}</span></span>
                <span class="w-32 shrink-0 text-right">{strength(bits)}</span>
              </p>
            {:else}
              <p>No reading speaks for or against it yet.</p>
            {/each}
            {#each rivalsOf(suspect.fault) as { name, by } (name)}
              <p class="pt-1">To tell it from {name}: {by}.</p>
            {/each}
          </div>
        </details>
      </li>
    {:else}
      <li class="py-2">{touched ? `${touched.name}: ${touched.word}. ` : ''}No suspect stands out here.</li>
    {/each}
  </ul>
  {#if first && !part}
    <p class="py-2 text-sm">
      To tell <strong>{first.names[0]}</strong> from <strong>{first.names[1]}</strong>:
      {byWhat(first)}.
    </p>
  {/if}
  {#if diagnosis.cleared.length && !part}
    <details class="py-1">
      <summary class="min-h-11 cursor-pointer py-2">{diagnosis.cleared.length} cleared</summary>
      <ul class="text-sm">
        {#each diagnosis.cleared as { fault, name } (fault)}<li>{name}</li>{/each}
      </ul>
    </details>
  {/if}
</section>
