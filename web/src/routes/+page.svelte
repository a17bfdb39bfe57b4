<script lang="ts">
  import { refresh } from '$lib/live/refresh.ts';
  import { standing } from '$lib/job.ts';
  import { watchChanges } from '$lib/live/changes.ts';
  import Tag from '$lib/parts/Tag.svelte';

  const { data } = $props();
  const hooks = $derived([
    {
      name: 'Waiting',
      jobs: data.jobs.filter((job) => !job.verdicts.length && !standing(job, 'bench').length),
      empty: 'Nothing waits.',
    },
    {
      name: 'On the bench',
      jobs: data.jobs.filter((job) => !job.verdicts.length && standing(job, 'bench').length > 0),
      empty: 'The benches are free.',
    },
    { name: 'Decided', jobs: data.jobs.filter((job) => job.verdicts.length > 0), empty: 'Nothing decided yet.' },
  ]);

  $effect(() =>
    watchChanges(
      () => void refresh(),
      () => void refresh(),
    ),
  );
</script>

<svelte:head><title>Rack · Refectum</title></svelte:head>

<section class="grow p-4">
  <div class="mb-3 flex items-baseline gap-4">
    <h1 class="text-2xl font-semibold">Rack</h1>
    <p>{data.shop.name}</p>
    <span class="grow"></span>
    <a class="btn btn-primary" href="/check-in">Check a unit in</a>
  </div>
  {#if data.jobs.length === 0}
    <p class="sheet p-6 text-lg">
      The rack is empty. <a class="link" href="/check-in">Check the first unit in</a>, or scan its tag.
    </p>
  {:else}
    <div class="grid gap-4 md:grid-cols-3">
      {#each hooks as hook (hook.name)}
        <section aria-label={hook.name}>
          <h2 class="mb-3 flex justify-between border-b-4 border-base-content pb-1 text-lg font-semibold">
            {hook.name} <span class="figure">{hook.jobs.length}</span>
          </h2>
          <ul class="flex flex-col gap-2">
            {#each hook.jobs as job (job.id)}
              <li><a href="/unit/{job.tag}" class="block"><Tag {job} /></a></li>
            {:else}
              <li class="py-2">{hook.empty}</li>
            {/each}
          </ul>
        </section>
      {/each}
    </div>
  {/if}
</section>
