<script lang="ts">
  import type { Apart, Diagnosis, Suspect } from '@refectum/core/assess';

  interface Props {
    diagnosis: Diagnosis;
    apart: Apart | undefined;
    /** Only suspects of this part, when one is touched. */
    part: string | undefined;
  }
  const { diagnosis, apart, part }: Props = $props();

  const listed = $derived(diagnosis.suspects.filter((suspect) => (part ? suspect.part === part : true)));
  const touched = $derived(diagnosis.parts.find((p) => p.id === part));

  const percent = (p: number): string => (p >= 0.995 ? '99+' : p < 0.01 ? '<1' : String(Math.round(100 * p)));
  const strength = (bits: number): string => {
    const size = Math.abs(bits);
    const word = size < 1 ? 'slightly' : size < 3.3 ? 'clearly' : 'strongly';
    return `${word} ${bits > 0 ? 'for' : 'against'}`;
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
            {#each suspect.evidence as { reading, check, shown, bits } (reading)}
              <p class="flex items-center justify-between gap-2">
                <span class="min-w-0">{check}: <span class="figure">{shown}</span></span>
                <span class="w-32 shrink-0 text-right">{strength(bits)}</span>
              </p>
            {:else}
              <p>No reading speaks for or against it yet.</p>
            {/each}
          </div>
        </details>
      </li>
    {:else}
      <li class="py-2">{touched ? `${touched.name}: ${touched.word}. ` : ''}No suspect stands out here.</li>
    {/each}
  </ul>
  {#if apart && !part}
    <p class="py-2 text-sm">
      To tell <strong>{apart.between[0]}</strong> from <strong>{apart.between[1]}</strong>:
      {apart.name ?? 'no check here does'}.
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
