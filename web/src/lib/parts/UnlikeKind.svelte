<script lang="ts">
  import type { Diagnosis } from '@refectum/core/assess';
  import { contraryBuild } from '$lib/contrary.ts';
  import { percent } from '$lib/percent.ts';

  /** Says so where a unit isn't what it was checked in as, or differs from its kind. */
  const { diagnosis }: { diagnosis: Pick<Diagnosis, 'builds' | 'unlike' | 'unlikeIn'> } = $props();

  const contrary = $derived(contraryBuild(diagnosis));
</script>

{#if contrary}
  <p class="my-1 border-l-4 border-info px-3 text-sm">
    Not what it was checked in as (<span class="figure">{percent(contrary.chance)} %</span>): it reads like
    <strong>{contrary.name}</strong>, and is judged as that.
  </p>
{/if}
{#if diagnosis.unlike >= 0.5}
  <p class="my-1 border-l-4 border-info px-3 text-sm">
    {#if diagnosis.unlikeIn}
      Differs from its kind in its {diagnosis.unlikeIn} alone: limits are taken wider there.
    {:else}
      Differs from its kind in many small ways: limits are taken wider.
    {/if}
  </p>
{/if}
