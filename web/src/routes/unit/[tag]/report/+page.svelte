<script lang="ts">
  import { courseNames } from '@refectum/core/verdict';
  import { dayAndTimeOf, daysBeside, timeOf } from '$lib/dates.ts';
  import { overrode } from '$lib/job.ts';
  import Courses from '$lib/parts/Courses.svelte';
  import Mark from '$lib/parts/Mark.svelte';
  import { beforeAndAfter, workLines } from '$lib/rounds.ts';
  import {
    findingsLines,
    identityLines,
    pairLines,
    readingsAside,
    readingsHeading,
    readsLikeLine,
    reportCautions,
  } from '$lib/report.ts';

  const { data } = $props();
  const decision = $derived(data.job.verdicts.at(-1));
  const taken = $derived(new Map(data.job.readings.map((reading) => [reading.id, reading])));
  const days = $derived(daysBeside(data.assessment.readings.map(({ id }) => taken.get(id)!.at)));
  const barcode = $derived(`data:image/svg+xml,${encodeURIComponent(data.barcode)}`);
</script>

<svelte:head><title>Report, tag {data.job.tag} · Refectum</title></svelte:head>

<div class="no-print flex items-center gap-3 px-4 pt-4">
  <a class="btn" href="/unit/{data.job.tag}">Bench</a>
  <a class="btn" href="/unit/{data.job.tag}/verdict">Verdict</a>
  <a class="btn" href="/unit/{data.job.tag}/label">Label</a>
  <span class="grow"></span>
  <a class="btn" href="/api/jobs/{data.job.tag}" download="tag-{data.job.tag}.json">Job file</a>
  <a class="btn" href="/unit/{data.job.tag}/report.pdf" data-sveltekit-reload>PDF</a>
  <button class="btn btn-primary" onclick={() => print()}>Print</button>
</div>

<article class="mx-auto w-full max-w-4xl p-6">
  <p>{data.shop.heading}</p>
  <div class="mb-4 flex items-end justify-between border-b-4 border-base-content pb-2">
    <h1 class="text-3xl font-semibold">Test report, tag <span class="figure">{data.job.tag}</span></h1>
    <img src={barcode} alt="Barcode of tag {data.job.tag}" class="h-10 bg-white p-1" />
  </div>

  <h2 class="text-xl font-semibold">Unit</h2>
  <dl class="mb-4 grid grid-cols-[10rem_1fr] gap-y-0.5">
    {#each [...identityLines(data.job), ...readsLikeLine(data.assessment)] as [name, value] (name)}<dt>{name}</dt>
      <dd>{value}</dd>{/each}
    <dt>Checked in</dt>
    <dd>{dayAndTimeOf(data.job.checkedInAt)}, {data.job.technician}</dd>
  </dl>

  {#if data.vehicle}
    <h2 class="text-xl font-semibold">On the vehicle</h2>
    <ul class="list-disc pl-5">
      {#each data.vehicle.readings as { id, text } (id)}<li>{text}</li>{/each}
    </ul>
    <p class="mb-4">{data.vehicle.conclusion}</p>
  {/if}

  {#if data.stand.length}
    <h2 class="text-xl font-semibold">On the run stand</h2>
    <ul class="mb-4 list-disc pl-5">
      {#each data.stand as line, i (i)}<li>{line}</li>{/each}
    </ul>
  {/if}

  <h2 class="text-xl font-semibold">Decision</h2>
  {#if decision}
    <p class="mb-4 text-lg">
      <strong>{courseNames[decision.course]}</strong>: {decision.reason} ({[
        decision.technician,
        dayAndTimeOf(decision.at),
        overrode(decision),
      ]
        .filter(Boolean)
        .join(', ')})
    </p>
  {:else}
    <p class="mb-4">None yet. {data.assessment.verdict.reason}</p>
  {/if}

  <h2 class="text-xl font-semibold">Findings</h2>
  <dl class="mb-4 grid grid-cols-[10rem_1fr] gap-y-0.5">
    {#each findingsLines(data.assessment) as { word, names } (word)}
      <dt class="flex items-center gap-2"><Mark word={word as 'sound'} /> {word}</dt>
      <dd>{names}</dd>
    {/each}
  </dl>

  <h2 class="text-xl font-semibold">{readingsHeading(data.job)}</h2>
  {#if data.assessment.readings.length}
    <table class="table mb-1 text-base">
      <thead
        ><tr
          ><th scope="col">Time</th><th scope="col">Check</th><th scope="col">Reading</th><th scope="col"
            >A sound unit reads</th
          ><th scope="col">Judged</th></tr
        ></thead
      >
      <tbody>
        {#each data.assessment.readings as reading, i (reading.id)}
          <tr>
            <td
              >{#if days[i]}<span class="block whitespace-nowrap">{days[i]}</span>{/if}<span class="figure"
                >{timeOf(taken.get(reading.id)!.at)}</span
              ></td
            >
            <td>{reading.name}</td>
            <td
              ><span class="figure">{reading.shown}</span>{#if reading.net}<span class="block">{reading.net}</span
                >{/if}{#if reading.then}<span class="block">{reading.then}</span
                >{/if}{#each pairLines(taken.get(reading.id)) as line, i (i)}<span class="figure block text-sm"
                  >{line}</span
                >{/each}</td
            >
            <td>{reading.expected || '–'}</td>
            <td
              ><span class="flex items-center gap-1"><Mark word={reading.word} /> {reading.word}</span
              >{#if reading.aside}<span class="block">{reading.aside}</span>{/if}{#if reading.repeat}<span class="block"
                  >{reading.repeat}</span
                >{/if}</td
            >
          </tr>
        {/each}
      </tbody>
    </table>
    <p class="mb-4">{readingsAside(data.job, data.assessment)}</p>
  {:else}
    <p class="mb-4">No reading was taken.</p>
  {/if}

  {#if data.job.works.length}
    <h2 class="text-xl font-semibold">Work, before and after</h2>
    <ul class="list-disc pl-5">
      {#each workLines(data.job) as line, i (i)}<li>{line}</li>{/each}
    </ul>
    <table class="table mb-4 text-base" aria-label="Before and after">
      <thead>
        <tr><th scope="col">Check</th><th scope="col">Before</th><th scope="col">After</th></tr>
      </thead>
      <tbody>
        {#each beforeAndAfter(data.job) as { name, before, after } (name)}
          <tr><td>{name}</td><td class="figure">{before}</td><td class="figure">{after}</td></tr>
        {/each}
      </tbody>
    </table>
  {/if}

  {#if data.pictures.length}
    <h2 class="text-xl font-semibold">Pictures</h2>
    <ul class="mb-4 grid grid-cols-3 gap-3">
      {#each data.pictures as { id, caption } (id)}
        <li>
          <img src="/pictures/{id}?size=small" alt={caption ? '' : 'Picture of the unit'} class="w-full" />{caption}
        </li>
      {/each}
    </ul>
  {/if}

  <h2 class="text-xl font-semibold">Suspects that remain</h2>
  <ul class="mb-4 list-disc pl-5">
    {#each data.assessment.suspects.filter((s) => s.chance >= 0.02) as suspect (suspect.fault)}
      <li>{suspect.name}: {Math.round(100 * suspect.chance)} %{suspect.severity ? `, ${suspect.severity}` : ''}</li>
    {/each}
    <li>nothing wrong: {Math.round(100 * data.assessment.sound)} %</li>
  </ul>

  {#if data.assessment.hidden.length}
    <h2 class="text-xl font-semibold">What these readings could not show</h2>
    <ul class="mb-4 list-disc pl-5">
      {#each data.assessment.hidden as hidden, i (i)}<li>{hidden}</li>{/each}
    </ul>
  {/if}

  <h2 class="mb-2 text-xl font-semibold">Courses weighed</h2>
  <Courses verdict={data.assessment.verdict} chosen={undefined} onchoose={undefined} />

  <ul class="mt-6 border-t border-base-content pt-3 text-sm">
    {#each reportCautions as caution (caution)}<li>{caution}</li>{/each}
  </ul>
</article>
