<script lang="ts">
  import { dateOf } from '$lib/dates.ts';
  import { complaintName } from '$lib/job.ts';
  import Mark from '$lib/parts/Mark.svelte';

  const { data } = $props();
  const complaint = $derived(complaintName(data.job.complaint));
  const told = $derived(new Map(data.job.readings.map((reading) => [reading.id, reading.told])));
</script>

<svelte:head><title>Letter, tag {data.job.tag} · Refectum</title></svelte:head>

<div class="no-print flex items-center gap-3 px-4 pt-4">
  <a class="btn" href="/unit/{data.job.tag}/vehicle">Vehicle</a>
  <a class="btn" href="/unit/{data.job.tag}">Bench</a>
  <span class="grow"></span>
  <button class="btn btn-primary" onclick={() => print()}>Print</button>
</div>

<article class="mx-auto w-full max-w-3xl p-6 text-lg">
  <p class="text-base">{data.shop.heading}</p>
  <h1 class="mt-6 text-2xl font-semibold">
    {data.job.customer}: your {data.job.model === 'unknown' ? 'unit' : data.job.model}
  </h1>
  <p class="mb-4 text-base">
    Tag <span class="figure">{data.job.tag}</span>, {dateOf(data.job.checkedInAt)}. Complaint: {complaint}{data.job
      .words
      ? ` (${data.job.words})`
      : ''}.
  </p>
  <p class="mb-4">{data.letter.verdict}</p>

  {#if data.letter.lookAt.length}
    <h2 class="text-xl font-semibold">What to look at on the vehicle</h2>
    <ol class="mb-4 list-decimal pl-6">
      {#each data.letter.lookAt as line, i (i)}<li class="py-0.5">{line}</li>{/each}
    </ol>
  {/if}

  <h2 class="text-xl font-semibold">What was found</h2>
  {#if data.letter.found.length}
    <table class="table mb-4 text-base">
      <tbody>
        {#each data.letter.found as { id, name, shown, word } (id)}
          <tr>
            <td>{name}{told.get(id) === 'own' ? '' : ', as told'}</td>
            <td class="figure">{shown}</td>
            <td><span class="flex items-center gap-1"><Mark word={word as 'sound'} /> {word}</span></td>
          </tr>
        {/each}
      </tbody>
    </table>
  {:else}
    <p class="mb-4">Nothing was measured on the vehicle or told of it.</p>
  {/if}

  {#if data.letter.drain}
    <h2 class="text-xl font-semibold">What drains with the key off</h2>
    <p class="mb-4">{data.letter.drain}</p>
  {/if}

  <ul class="mt-6 border-t border-base-content pt-3 text-base">
    {#each data.letter.cautions as caution (caution)}<li>{caution}</li>{/each}
  </ul>
</article>
