<script lang="ts">
  import { goto } from '$app/navigation';
  import { dayAndTimeOf } from '$lib/dates.ts';
  import { tagFacts } from '$lib/job.ts';
  import { followBench } from '$lib/live/follow-bench.svelte.ts';
  import { once } from '$lib/live/once.ts';
  import Tag from '$lib/parts/Tag.svelte';
  import { workText } from '$lib/rounds.ts';

  const { data } = $props();
  const following = followBench(() => data, 'bench');
  const bench = $derived(following.current);

  const subject = $derived(bench.subject);
  const mends = $derived(
    subject.faults.filter(
      ({ repair, part }, i, all) => repair && all.findIndex((f) => f.part === part && f.repair) === i,
    ),
  );
  /** What the decision, or else the sheet, wants done: ticked beforehand. */
  const wanted = $derived.by(() => {
    const verdict = bench.outlook?.verdict;
    const course = bench.job.verdicts.at(-1)?.course ?? verdict?.recommended;
    return verdict?.courses.find(({ id }) => id === course)?.actions ?? [];
  });
  let ticked = $state<Record<string, boolean>>({});
  let note = $state('');
  let problem = $state('');
  const isTicked = (kind: 'replace' | 'repair', id: string) =>
    ticked[`${kind} ${id}`] ?? wanted.some((action) => action.kind === kind && action.id === id);

  const onDone = once(async () => {
    const fitted = subject.items.map(({ id }) => id).filter((id) => isTicked('replace', id));
    const mended = mends.map(({ part }) => part).filter((part) => isTicked('repair', part));
    problem =
      fitted.length + mended.length ? '' : 'Tick what was fitted or mended: without either there is no work to prove.';
    if (problem) return;
    await bench.work({ fitted, mended, note: note.trim() });
    problem = bench.problem ?? '';
    if (!problem) await goto(`/unit/${data.job.tag}`);
  });
</script>

<svelte:head><title>Work on tag {data.job.tag} · Refectum</title></svelte:head>

<div class="mx-auto flex w-full max-w-4xl flex-col gap-4 p-4">
  <Tag facts={tagFacts(bench.job)} wide />
  <h1 class="text-2xl font-semibold">Work done on tag <span class="figure">{data.job.tag}</span></h1>
  {#if bench.works.length}
    <ul class="sheet p-3">
      {#each bench.works as work, i (work.id)}
        <li class="py-1">
          After round {i + 1}: {workText(bench.job.machine, work)} ({work.technician}, {dayAndTimeOf(work.at)})
        </li>
      {/each}
    </ul>
  {/if}
  <form
    class="sheet flex flex-col gap-4 p-4"
    onsubmit={(event) => {
      event.preventDefault();
      void onDone();
    }}
  >
    <div class="grid gap-4 md:grid-cols-[3fr_2fr]">
      <fieldset>
        <legend class="font-semibold">Fitted new</legend>
        <div class="grid gap-x-4 sm:grid-cols-2">
          {#each subject.items as { id, name } (id)}
            <label class="flex min-h-11 items-center gap-3">
              <input
                type="checkbox"
                class="checkbox"
                checked={isTicked('replace', id)}
                onchange={(e) => (ticked[`replace ${id}`] = e.currentTarget.checked)}
              />
              {name}
            </label>
          {/each}
        </div>
      </fieldset>
      <fieldset>
        <legend class="font-semibold">Mended in place</legend>
        {#each mends as { part, repair } (part)}
          <label class="flex min-h-11 items-center gap-3">
            <input
              type="checkbox"
              class="checkbox"
              checked={isTicked('repair', part)}
              onchange={(e) => (ticked[`repair ${part}`] = e.currentTarget.checked)}
            />
            {repair!.charAt(0).toUpperCase() + repair!.slice(1)}
          </label>
        {/each}
      </fieldset>
    </div>
    <label class="flex flex-col">
      Note
      <input
        type="text"
        class="input w-full placeholder:text-base-content/80"
        maxlength="200"
        bind:value={note}
        placeholder="turned to 27.2 mm, new springs"
      />
    </label>
    {#if problem}<p role="alert" class="border-l-4 border-error px-3 py-1">{problem}</p>{/if}
    <p class="flex items-center gap-3">
      <button class="btn btn-primary">Begin round {bench.round + 1}: prove it</button>
      <a class="btn" href="/unit/{data.job.tag}">Back to the bench</a>
    </p>
    <p class="text-sm">
      Readings so far stay with round {bench.round}. The next ones are the unit’s after this work; both stand side by
      side in the report.
    </p>
  </form>
</div>
