<script lang="ts">
  import { families, type FamilyId } from '@refectum/core/machines';
  import { type FactGroup, factGroups, trapAbouts, type TrapAbout } from '@refectum/core/shelf';
  import type { SubmitFunction } from '@sveltejs/kit';
  import { untrack } from 'svelte';
  import { enhance } from '$app/forms';
  import { dayAndTimeOf } from '$lib/dates.ts';
  import FactRows from '$lib/parts/FactRows.svelte';
  import { sends } from '$lib/sends.ts';
  import { type Cells, type Draft, factsOfDraft, modelOf, type Problems, withoutBlanks } from '$lib/shelf.ts';

  const { data, form } = $props();
  let draft = $state.raw<Draft>(untrack(() => data.draft));
  /** Where values typed now come from. */
  let source = $state('');
  let found = $state.raw<Problems>();
  /** About to be taken off the shelf. */
  let leaves = $state(false);
  const focus = (button: HTMLElement) => button.focus();
  const problems = $derived<Problems>(found ?? ((form?.problems ?? {}) as Problems));
  const editable = $derived(data.person.role === 'lead');
  const facts = $derived(factsOfDraft(draft));
  const groups: readonly FactGroup[] = ['machine', 'plate', 'limits', 'prices'];
  const machineFacts = $derived(facts.filter(({ group }) => group === 'machine'));
  const of = (group: FactGroup) => facts.filter((fact) => fact.group === group);
  const given = (group: FactGroup) => editable || of(group).some(({ id }) => draft.cells[id]);
  const sources = $derived([
    ...new Set(
      [...Object.values(draft.cells), ...draft.variants.flatMap(({ cells }) => Object.values(cells)), ...draft.traps]
        .map((one) => one.source)
        .filter(Boolean),
    ),
  ]);

  const change = (next: Partial<Draft>) => {
    draft = { ...draft, ...next };
    found = undefined;
  };
  /** What both families have stays; the rest is nothing that such a model can have. */
  function become(family: FamilyId) {
    const known = new Set(factsOfDraft({ family, cells: {} }).map(({ id }) => id));
    const kept = (cells: Cells): Cells => Object.fromEntries(Object.entries(cells).filter(([id]) => known.has(id)));
    const variants = draft.variants.map((variant) => ({ ...variant, cells: kept(variant.cells) }));
    change({ family, cells: kept(draft.cells), variants });
  }
  function changeVariant(i: number, next: Partial<Draft['variants'][number]>) {
    change({ variants: draft.variants.map((one, at) => (at === i ? { ...one, ...next } : one)) });
  }
  function changeTrap(i: number, next: Partial<Draft['traps'][number]>) {
    change({ traps: draft.traps.map((one, at) => (at === i ? { ...one, ...next } : one)) });
  }

  const send = sends((why) => (found = why ? { form: why } : undefined));
  const onSave: SubmitFunction = (event) => {
    const { action, formData, cancel } = event;
    if (action.search === '?/off') return send(event);
    // What is wrong is told by the places of what is left.
    draft = withoutBlanks(draft);
    const read = modelOf(draft);
    if ('problems' in read) {
      found = read.problems;
      cancel();
      return;
    }
    formData.set('model', JSON.stringify(read.model));
    return send(event);
  };
  /** What is wrong somewhere that has no field of its own. */
  const elsewhere = $derived(
    Object.entries(problems).filter(
      ([path]) => path === 'form' || path === 'facts' || /^variants\[\d+\]\.facts$/.test(path),
    ),
  );
</script>

<svelte:head><title>{draft.name || 'A new model'} · Shelf · Refectum</title></svelte:head>

{#snippet told(path: string)}
  {#if problems[path]}<p role="alert" class="text-sm text-error">{problems[path]}</p>{/if}
{/snippet}

<section class="flex flex-col gap-3 p-4">
  <div class="flex flex-wrap items-end gap-3">
    <h1 class="grow text-2xl font-semibold">
      {draft.name || 'A new model'}{data.changed ? '' : editable ? ', not on the shelf yet' : ''}
    </h1>
    <a class="btn" href="/shelf">Shelf</a>
    {#if data.changed}<a class="btn" href="/?find={encodeURIComponent(draft.name)}">Its units</a>{/if}
    {#if editable}
      {#if data.changed && leaves}
        <p class="self-center">All that stands here goes for good.</p>
        <button class="btn btn-error" form="model" formaction="?/off" {@attach focus}>Off the shelf for good</button>
        <button type="button" class="btn" onclick={() => (leaves = false)}>Leave it there</button>
      {:else if data.changed}
        <button type="button" class="btn" onclick={() => (leaves = true)}>Take it off the shelf</button>
      {/if}
      <button class="btn btn-primary" form="model">Put it on the shelf</button>
    {/if}
  </div>
  {#if data.changed}<p>Last changed {dayAndTimeOf(data.changed.at)}, {data.changed.by}.</p>{/if}

  {#each elsewhere as [path, message] (path)}
    <p role="alert" class="border-l-4 border-error px-3 py-1">{message}</p>
  {/each}
  <p role="status" class="text-error" class:hidden={!Object.keys(problems).length}>
    {Object.keys(problems).length === 1 ? 'One value is' : `${Object.keys(problems).length} values are`} to be mended first.
    Nothing is lost.
  </p>

  <form
    id="model"
    method="POST"
    action="?/save"
    use:enhance={onSave}
    class="grid gap-4 lg:grid-cols-[minmax(0,1.3fr)_minmax(0,1fr)]"
  >
    <input type="hidden" name="id" value={data.id} />
    <input type="hidden" name="seen" value={data.changed?.at ?? ''} />
    <datalist id="sources"
      >{#each sources as one (one)}<option value={one}></option>{/each}</datalist
    >

    <div class="sheet p-4">
      {#if editable}
        <div class="mb-2 grid grid-cols-2 gap-3">
          <label class="flex flex-col">
            Model, as on the plate
            <input
              class="input h-10 w-full"
              value={draft.name}
              oninput={(event) => change({ name: event.currentTarget.value })}
              aria-invalid={problems.name ? 'true' : undefined}
              autocomplete="off"
            />
            {@render told('name')}
          </label>
          {#if !data.changed}
            <label class="flex flex-col">
              What it is
              <select
                class="select h-10 w-full"
                value={draft.family}
                onchange={(event) => become(event.currentTarget.value as FamilyId)}
              >
                {#each Object.entries(families) as [id, { name }] (id)}<option value={id}>{name}</option>{/each}
              </select>
            </label>
          {/if}
          <label class="flex flex-col">
            Values typed now come from
            <input
              class="input h-10 w-full"
              bind:value={source}
              list="sources"
              placeholder="maker’s sheet, plate, tag 1012"
            />
          </label>
        </div>
      {/if}
      <table class="w-full">
        <thead>
          <tr>
            <th scope="col" class="text-left">What</th>
            <th scope="col" class="text-left">Value</th>
            <th scope="col" class="text-left">Where it comes from</th>
          </tr>
        </thead>
        {#each groups.filter(given) as group (group)}
          <tbody>
            <tr
              ><th colspan="3" scope="colgroup" class="border-b border-base-300 pt-3 text-left">{factGroups[group]}</th
              ></tr
            >
            <FactRows
              always={group === 'limits' ? [] : of(group)}
              addable={group === 'limits' ? of(group) : []}
              cells={draft.cells}
              {problems}
              at=""
              {editable}
              {source}
              onchange={(cells: Cells) => change({ cells })}
            />
          </tbody>
        {/each}
      </table>
    </div>

    <div class="flex flex-col gap-4">
      {#if data.warnings.length}
        <section class="sheet p-4" aria-labelledby="said">
          <h2 id="said" class="text-lg font-semibold">Said at check-in</h2>
          <ul>
            {#each data.warnings as { about, say }, i (i)}
              <li class="mt-1 border-l-4 border-warning px-3 py-1"><strong>{trapAbouts[about]}.</strong> {say}</li>
            {/each}
          </ul>
        </section>
      {/if}

      {#if editable || draft.variants.length}
        <section class="sheet p-4" aria-labelledby="variants">
          <h2 id="variants" class="text-lg font-semibold">Variants</h2>
          {#each draft.variants as variant, i (i)}
            <div class="mt-2 border-t border-base-300 pt-2">
              {#if editable}
                <div class="grid grid-cols-2 gap-2">
                  <label class="flex flex-col text-sm">
                    Name
                    <input
                      class="input h-9 w-full"
                      value={variant.name}
                      oninput={(event) => changeVariant(i, { name: event.currentTarget.value })}
                    />
                    {@render told(`variants[${i}].name`)}
                  </label>
                  <label class="flex flex-col text-sm">
                    How to tell it
                    <input
                      class="input h-9 w-full"
                      value={variant.tell}
                      oninput={(event) => changeVariant(i, { tell: event.currentTarget.value })}
                    />
                    {@render told(`variants[${i}].tell`)}
                  </label>
                </div>
              {:else}
                <h3 class="font-semibold">{variant.name}</h3>
                <p>{variant.tell}</p>
              {/if}
              <table class="mt-1 w-full">
                <tbody>
                  <FactRows
                    always={[]}
                    addable={machineFacts}
                    cells={variant.cells}
                    {problems}
                    at="variants[{i}]."
                    {editable}
                    {source}
                    onchange={(cells: Cells) => changeVariant(i, { cells })}
                  />
                </tbody>
              </table>
            </div>
          {/each}
          {#if editable}
            <button
              type="button"
              class="btn mt-2"
              onclick={() => change({ variants: [...draft.variants, { name: '', tell: '', cells: {} }] })}
            >
              Another variant
            </button>
          {/if}
        </section>
      {/if}

      {#if editable}
        <section class="sheet p-4" aria-labelledby="traps">
          <h2 id="traps" class="text-lg font-semibold">Traps: what passes for what</h2>
          {#each draft.traps as trap, i (i)}
            <div class="mt-2 grid grid-cols-[9rem_minmax(0,1fr)] gap-2 border-t border-base-300 pt-2">
              <select
                class="select h-9"
                aria-label="About"
                value={trap.about}
                onchange={(event) => changeTrap(i, { about: event.currentTarget.value as TrapAbout })}
              >
                {#each Object.entries(trapAbouts) as [id, name] (id)}<option value={id}>{name}</option>{/each}
              </select>
              <div>
                <textarea
                  class="textarea w-full"
                  rows="2"
                  aria-label="What to say"
                  maxlength="240"
                  value={trap.say}
                  oninput={(event) => changeTrap(i, { say: event.currentTarget.value })}></textarea>
                {@render told(`traps[${i}].say`)}
                <input
                  class="input mt-1 h-9 w-full"
                  aria-label="Where it comes from"
                  placeholder="where it comes from"
                  list="sources"
                  value={trap.source}
                  oninput={(event) => changeTrap(i, { source: event.currentTarget.value })}
                />
                {@render told(`traps[${i}].source`)}
              </div>
            </div>
          {/each}
          <button
            type="button"
            class="btn mt-2"
            onclick={() => change({ traps: [...draft.traps, { about: 'rating', say: '', source }] })}
          >
            Another trap
          </button>
        </section>
      {/if}
    </div>
  </form>
</section>
