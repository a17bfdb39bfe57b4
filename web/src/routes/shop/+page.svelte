<script lang="ts">
  import { enhance } from '$app/forms';
  import { schools, type School } from '@refectum/core/limits';
  import { dayOf } from '$lib/dates.ts';
  import { dueOf, isOverdue, type MeterDraft, type MeterProblems, rangeOrder } from '$lib/meters.ts';
  import { leastKilohertz, outputSchools } from '$lib/rules.ts';
  import { sends } from '$lib/sends.ts';
  import ShopInstruments from '$lib/parts/ShopInstruments.svelte';

  const { data, form } = $props();
  const mayWrite = $derived(data.person.role === 'lead');
  const now = new Date();
  /** Why the server took nothing, by the form that was sent. */
  let away = $state<Record<string, string>>({});
  const sendsAs = (form: string) => sends((why) => (away = { [form]: why }));

  const failed = $derived(form && 'draft' in form && form.problems ? form : undefined);
  /** What is being described: a meter of the shop, a copy of one as a new meter, or what came back refused. */
  let editing = $state<MeterDraft>();
  $effect(() => {
    if (failed?.draft) editing = failed.draft;
    else if (form && 'saved' in form) editing = undefined;
  });
  const problems = $derived<MeterProblems>(failed?.problems && editing?.id === failed.draft?.id ? failed.problems : {});

  const copyOf = (draft: MeterDraft): MeterDraft => ({
    ...draft,
    id: crypto.randomUUID(),
    name: `${draft.name}, another`,
    calibratedOn: '',
    retired: false,
  });

  const standFigures = [
    { name: 'motorKilowatts', label: 'Motor, kW' },
    { name: 'beltKilowatts', label: 'Belt, kW' },
    { name: 'fuseAmps', label: 'Fuse of the output lead, A' },
    { name: 'loadAmps', label: 'Load, most A' },
    { name: 'loadSeconds', label: 'Load on at most, s' },
    { name: 'brakeNewtonMetres', label: 'Brake of the starter bench, most Nm' },
    { name: 'commanderHertz', label: 'Commander of regulators, Hz' },
    { name: 'oscilloscopeKilohertz', label: 'Oscilloscope with a clamp samples at, kHz' },
  ] as const;
  const standProblems = $derived<Record<string, string>>((form && 'standProblems' in form && form.standProblems) || {});

  const limits = $derived(data.rules.limits.join(' '));
  /** As somebody moves them; as they are kept, whenever that changes. */
  let order = $derived(limits.split(' ') as School[]);
  function earlier(at: number) {
    const next = [...order];
    [next[at - 1], next[at]] = [next[at]!, next[at - 1]!];
    order = next;
  }
</script>

{#snippet field(name: keyof typeof problems & keyof MeterDraft, label: string, hint = '')}
  <label class="flex flex-col">
    {label}
    <input
      {name}
      type="text"
      class="input w-full"
      class:input-error={problems[name]}
      value={editing?.[name]}
      aria-invalid={problems[name] ? 'true' : undefined}
    />
    {#if problems[name]}<span role="alert" class="border-l-4 border-error px-2">{problems[name]}</span>
    {:else if hint}<span class="text-sm">{hint}</span>{/if}
  </label>
{/snippet}
{#snippet lines(name: 'diode' | 'ohms' | 'volts', label: string, rows: number)}
  <label class="flex flex-col">
    {label}
    <textarea
      {name}
      {rows}
      class="figure textarea w-full"
      class:textarea-error={problems[name]}
      aria-invalid={problems[name] ? 'true' : undefined}
      value={editing?.[name]}></textarea>
    {#if problems[name]}<span role="alert" class="border-l-4 border-error px-2">{problems[name]}</span>
    {:else}<span class="text-sm">A range a line: {rangeOrder[name === 'volts' ? 'volts' : 'ohms']}</span>{/if}
  </label>
{/snippet}

{#snippet notTaken(form: string, problem?: string)}
  {#if away[form] || problem}<p role="alert" class="mt-2 border-l-4 border-error px-3 py-1">
      {away[form] || problem}
    </p>{/if}
{/snippet}

<svelte:head><title>Shop · Refectum</title></svelte:head>

<div class="mx-auto grid w-full max-w-6xl gap-5 p-4 lg:grid-cols-[minmax(0,1fr)_20rem]">
  <section>
    <h1 class="text-2xl font-semibold">Meters</h1>
    <p class="mb-2">
      A reading is as sure as the meter it was read on: its range, its accuracy, its leads. Each bench screen keeps the
      meter that was last in hand there.
    </p>
    {#if form && 'saved' in form}<p role="status" class="mb-2 border-l-4 border-success px-3 py-1">
        {form.saved} is kept.
      </p>{/if}
    <ul class="sheet">
      {#each data.meters as meter (meter.known.id)}
        {@const due = dueOf(meter)}
        <li class="flex flex-wrap items-center gap-3 border-b border-base-300 px-3 py-2 last:border-0">
          <span class="min-w-60 grow">
            <strong class:line-through={meter.retired}>{meter.known.name}</strong>
            <span class="block text-sm">
              {meter.known.description}{meter.retired ? ' · out of use' : ''}
            </span>
          </span>
          {#if due}
            <span
              class:bg-warning={isOverdue(meter, now)}
              class:text-warning-content={isOverdue(meter, now)}
              class="px-2 text-sm"
            >
              {isOverdue(meter, now) ? 'calibration was due' : 'calibrated until'}
              {dayOf(due)}
            </span>
          {:else}
            <span class="text-sm">no calibration kept</span>
          {/if}
          {#if mayWrite}
            <button class="btn btn-sm" onclick={() => (editing = { ...meter.draft })}>Describe</button>
            <button class="btn btn-sm" onclick={() => (editing = copyOf(meter.draft))}>Copy as new</button>
          {/if}
        </li>
      {/each}
    </ul>

    {#if editing}
      {#key editing.id}
        <form
          method="POST"
          action="?/meter"
          use:enhance={sendsAs('meter')}
          class="sheet mt-4 flex flex-col gap-3 p-4"
          aria-label="Meter"
        >
          <input type="hidden" name="id" value={editing.id} />
          <div class="grid gap-3 md:grid-cols-2">
            {@render field('name', 'Name in the shop')}
            {@render field('description', 'What it is', 'digits, steps, leads')}
          </div>
          {@render lines('diode', 'Diode test', 1)}
          {@render lines('ohms', 'Ohms', 7)}
          {@render lines('volts', 'DC volts', 4)}
          <div class="grid gap-3 md:grid-cols-4">
            {@render field('voltsInput', 'Input on volts, Ω')}
            {@render field('bandwidth', 'AC true up to, Hz')}
            {@render field('leads', 'Both leads, Ω')}
            {@render field('leadsSpread', 'give or take, Ω')}
          </div>
          <div class="grid items-end gap-3 md:grid-cols-4">
            <label class="flex flex-col">
              Calibrated on
              <input name="calibratedOn" type="date" class="input w-full" value={editing.calibratedOn} />
              {#if problems.calibratedOn}<span role="alert" class="border-l-4 border-error px-2"
                  >{problems.calibratedOn}</span
                >{/if}
            </label>
            {@render field('everyMonths', 'holds for, months')}
            <label class="flex min-h-11 items-center gap-2">
              <input name="retired" type="checkbox" class="checkbox" checked={editing.retired} /> out of use
            </label>
          </div>
          {@render notTaken('meter', problems.form)}
          <p class="flex gap-3">
            <button class="btn btn-primary">Keep</button>
            <button type="button" class="btn" onclick={() => (editing = undefined)}>Leave it</button>
          </p>
        </form>
      {/key}
    {/if}
    <ShopInstruments
      instruments={data.instruments}
      meters={data.meters}
      {mayWrite}
      refused={form && 'entry' in form && form.entry
        ? { entry: form.entry, problems: { ...form.problems } }
        : undefined}
      said={form && 'instrumentSaid' in form ? form.instrumentSaid : undefined}
    />
  </section>

  <section>
    <h2 class="text-2xl font-semibold">House rules</h2>
    <form method="POST" action="?/rules" use:enhance={sendsAs('rules')} class="sheet mt-2 p-4">
      <h3 class="font-semibold">Which limits lead</h3>
      <p class="text-sm">Where they contradict each other on a reading, all are shown and the first leads.</p>
      <ol class="mt-2">
        {#each order as school, i (school)}
          <li class="flex min-h-11 items-center gap-3 border-b border-base-300">
            <span class="figure">{i + 1}</span>
            <span class="grow">{schools[school]}</span>
            <input type="hidden" name="limits" value={school} />
            {#if mayWrite && i > 0}
              <button type="button" class="btn btn-sm" aria-label="{schools[school]} earlier" onclick={() => earlier(i)}
                >↑ earlier</button
              >
            {/if}
          </li>
        {/each}
      </ol>
      <label class="mt-3 flex flex-col">
        <span class="font-semibold">How an output is read</span>
        <select name="output" class="select w-full" disabled={!mayWrite} value={data.rules.output}>
          {#each Object.entries(outputSchools) as [school, name] (school)}<option value={school}>{name}</option>{/each}
        </select>
        <span class="text-sm">The run stand takes its points so; the other way is foreseen beside it.</span>
      </label>
      {@render notTaken('rules', form && 'rulesProblem' in form ? form.rulesProblem : undefined)}
      {#if form && 'rulesSaved' in form}<p role="status" class="mt-2 border-l-4 border-success px-3 py-1">
          The house rules are kept.
        </p>{/if}
      {#if mayWrite}<button class="btn mt-3 btn-primary">Keep the rules</button>{:else}<p class="mt-3 text-sm">
          A lead changes them.
        </p>{/if}
    </form>
    <p class="mt-2 px-4 text-sm">
      Of the units that come in
      <span class="figure">{(100 * data.unlikeShare).toFixed(data.unlikeShare < 0.1 ? 1 : 0)} %</span> are taken to
      differ from their kind in many small ways{data.decided
        ? `: learnt from the ${data.decided} decided last, never less than usual.`
        : ', as usual, as long as none is decided.'}
    </p>
    <form method="POST" action="?/stand" use:enhance={sendsAs('stand')} class="sheet mt-3 p-4" aria-label="Run stand">
      <h3 class="font-semibold">Run stand</h3>
      <p class="text-sm">
        What it can pull; empty where nobody knows. It warns before a load that it can’t take. Without a motor here no
        unit is sent to it before it is opened; without brake, commander or oscilloscope nothing is advised that needs
        them. An oscilloscope under {leastKilohertz} kHz shows no bars passing.
      </p>
      {#each standFigures as { name, label } (name)}
        <label class="mt-1 flex items-center justify-between gap-3">
          {label}
          <input
            {name}
            class="figure input h-11 w-24"
            inputmode="decimal"
            autocomplete="off"
            readonly={!mayWrite}
            value={(form && 'stand' in form && form.stand ? form.stand[name] : data.rules.stand[name]) ?? ''}
            aria-invalid={standProblems[name] ? 'true' : undefined}
          />
        </label>
        {#if standProblems[name]}<p role="alert" class="border-l-4 border-error px-2 text-sm">
            {standProblems[name]}
          </p>{/if}
      {/each}
      {@render notTaken('stand')}
      {#if form && 'standSaved' in form}<p role="status" class="mt-2 border-l-4 border-success px-3 py-1">
          The stand is kept.
        </p>{/if}
      {#if mayWrite}<button class="btn mt-3 btn-primary">Keep the stand</button>{/if}
    </form>
  </section>
</div>
