<script lang="ts">
  import { familyBy } from '@refectum/core/machines';
  import { units } from '@refectum/core/quantity';
  import type { ShelfModel } from '@refectum/core/shelf';
  import { enhance } from '$app/forms';
  import { dayOf } from '$lib/dates.ts';
  import { notTaken } from '$lib/sends.ts';
  import { readShelf, writeShelfSheet } from '$lib/shelf.ts';

  const { data, form } = $props();
  let find = $state('');
  let text = $state('');
  /** Why the server took nothing. */
  let away = $state('');
  const editable = $derived(data.person.role === 'lead');
  const shown = $derived(
    data.models.filter(({ known }) =>
      `${known.name} ${String(known.facts.frame?.value ?? '')}`.toLowerCase().includes(find.trim().toLowerCase()),
    ),
  );
  const read = $derived(text.trim() ? readShelf(text) : undefined);
  const value = ({ facts }: ShelfModel, id: string) => facts[id]?.value;
  /** Rated amps or kilowatts, by what it is. */
  function sizeOf(known: ShelfModel): string {
    const { size, facts } = familyBy(known.family);
    const { kind } = facts.find(({ id }) => id === size.fact)!;
    return `${String(value(known, size.fact))} ${'unit' in kind ? units[kind.unit].symbol : ''}`;
  }
  const standing = (name: string) => data.models.find(({ known }) => known.name.toLowerCase() === name.toLowerCase());

  async function onFile(event: Event & { currentTarget: HTMLInputElement }) {
    const [file] = event.currentTarget.files ?? [];
    if (file) text = await file.text();
  }
</script>

<svelte:head><title>Shelf · Refectum</title></svelte:head>

<section class="mx-auto flex w-full max-w-6xl flex-col gap-4 p-4">
  <div class="flex flex-wrap items-center gap-4">
    <h1 class="text-2xl font-semibold">Shelf</h1>
    <p>What the shop knows of each model, and from where.</p>
    <span class="grow"></span>
    <label class="flex items-center gap-2">
      Search <input type="search" class="input h-9 w-48" bind:value={find} placeholder="model, frame" />
    </label>
    {#if editable}<a class="btn btn-primary" href="/shelf/new">Put a model on the shelf</a>{/if}
  </div>

  {#if data.models.length === 0}
    <p class="sheet p-6 text-lg">
      The shelf is empty. {editable
        ? 'Put a model on it, from the plate, a maker’s sheet or a unit that was here; or bring a file in below.'
        : 'A lead puts models on it.'}
    </p>
  {:else}
    <table class="table text-base">
      <thead>
        <tr>
          <th scope="col">Model</th>
          <th scope="col">Frame</th>
          <th scope="col">Rated</th>
          <th scope="col">Values</th>
          <th scope="col">Variants</th>
          <th scope="col">Said at check-in</th>
          <th scope="col">Changed</th>
        </tr>
      </thead>
      <tbody>
        {#each shown as { id, known, warnings, changedAt, changedBy } (id)}
          <tr>
            <th scope="row" class="whitespace-nowrap"><a class="link text-lg" href="/shelf/{id}">{known.name}</a></th>
            <td>{value(known, 'frame') ?? ''}</td>
            <td class="figure whitespace-nowrap">{value(known, 'ratedVolts')} V, {sizeOf(known)}</td>
            <td class="figure">{Object.keys(known.facts).length}</td>
            <td class="figure">{known.variants.length || ''}</td>
            <td class="figure">{warnings || ''}</td>
            <td>{dayOf(changedAt)}, {changedBy}</td>
          </tr>
        {:else}
          <tr><td colspan="7">No model has “{find}” in its name or frame.</td></tr>
        {/each}
      </tbody>
    </table>
  {/if}

  <div class="flex flex-wrap gap-4">
    <a class="link" href="/shelf/shelf.csv" download>The shelf as CSV</a>
    <a class="link" href="/shelf/shelf.json" download>as JSON</a>
    <a class="link" href="/api/schema/shelf">its schema</a>
  </div>

  {#if form && 'added' in form}
    <p role="status" class="border-l-4 border-success px-3 py-1 text-lg">
      {form.added} put on the shelf, {form.changed} changed.
    </p>
  {/if}
  {#if form && 'problem' in form}
    <p role="alert" class="border-l-4 border-error px-3 py-1 text-lg">{form.problem}</p>
  {/if}

  {#if editable}
    <details class="sheet px-4" open={text !== ''}>
      <summary class="min-h-11 cursor-pointer py-2.5">Bring models in from a file</summary>
      <form
        method="POST"
        action="?/import"
        class="flex flex-col gap-3 pb-4"
        use:enhance={() =>
          ({ result, update }) => {
            away = result.type === 'error' ? notTaken(result) : '';
            if (result.type === 'success') text = '';
            if (!away) return update({ reset: false });
          }}
      >
        <p>
          CSV with one line a value (<span class="figure">model, variant, what, value, source</span>), or JSON: as the
          links above write them. A model that stands here already is replaced.
        </p>
        <label class="flex flex-col text-sm">
          A file
          <input class="file-input h-9" type="file" accept=".csv,.json,text/csv,application/json" onchange={onFile} />
        </label>
        <label class="flex flex-col text-sm">
          Or paste it
          <textarea class="figure textarea w-full" rows="6" name="text" spellcheck="false" bind:value={text}></textarea>
        </label>
        {#if read}
          <ul aria-label="What would be brought in">
            {#each read.models as model (model.name)}
              {@const there = standing(model.name)}
              <li class="py-0.5">
                <strong>{model.name}</strong>: {Object.keys(model.facts).length} values, {model.variants.length} variants,
                {model.traps.length} traps, {there
                  ? writeShelfSheet([there.known]) === writeShelfSheet([model])
                    ? 'as it stands here'
                    : 'replaces what stands here'
                  : 'new'}
              </li>
            {/each}
            {#each read.problems as problem, i (i)}
              <li class="my-1 border-l-4 border-error px-3 py-0.5">{problem}</li>
            {/each}
          </ul>
        {/if}
        <p role="alert" class="text-lg text-error">{away}</p>
        <button class="btn self-end btn-primary" disabled={!read?.models.length}>
          {read?.models.length ? `Bring ${read.models.length} in` : 'Bring in'}
        </button>
      </form>
    </details>
  {/if}
</section>
