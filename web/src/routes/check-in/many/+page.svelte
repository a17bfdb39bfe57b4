<script lang="ts">
  import { onMount } from 'svelte';
  import { columns, type Line, lineKeys, type LineResult, readSheet, writeSheet } from '$lib/many.ts';
  import { freshId } from '$lib/live/outbox.svelte.ts';

  const { data } = $props();
  const kept = 'refectum-many';
  const keptIds = 'refectum-many-ids';
  let text = $state('');
  let problem = $state('');
  let busy = $state(false);
  let checked = $state.raw<readonly LineResult[]>([]);
  let done = $state.raw<readonly { line: Line; tag: number }[]>([]);
  /** An id for each line, by its key, kept as long as the lines are: what is sent twice is one job. */
  let ids: Record<string, string> = {};

  const sheet = $derived(readSheet(text));
  const good = $derived(checked.filter((result) => !result.problem).length);

  onMount(() => {
    text = sessionStorage.getItem(kept) ?? '';
    ids = JSON.parse(sessionStorage.getItem(keptIds) ?? '{}') as Record<string, string>;
  });

  function type(value: string) {
    text = value;
    problem = '';
    // Whatever was typed is looked through anew.
    checked = [];
    sessionStorage.setItem(kept, value);
  }
  async function onFile(event: Event & { currentTarget: HTMLInputElement }) {
    const [file] = event.currentTarget.files ?? [];
    if (file) type(await file.text());
  }
  function withIds(lines: readonly Line[]) {
    const keys = lineKeys(lines);
    ids = { ...Object.fromEntries(keys.map((key) => [key, freshId()])), ...ids };
    sessionStorage.setItem(keptIds, JSON.stringify(ids));
    return lines.map((line, at) => ({ ...line, id: ids[keys[at]!] }));
  }

  async function send(dry: boolean): Promise<void> {
    busy = true;
    problem = '';
    const { lines } = sheet;
    try {
      const answer = await fetch('/api/check-ins', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({
          technician: data.person!.id,
          dry,
          lines: withIds(lines),
        }),
      });
      const told = (await answer.json()) as LineResult[] | { message: string };
      if (!Array.isArray(told)) problem = told.message;
      else if (dry) checked = told;
      else take(lines, told);
    } catch {
      problem = 'The server did not answer. The lines are kept here: try again in a moment.';
    }
    busy = false;
  }

  /** Lines that went in leave the sheet, the rest stay to be mended. */
  function take(lines: readonly Line[], results: readonly LineResult[]) {
    // The same lines once more would be other units.
    ids = {};
    sessionStorage.removeItem(keptIds);
    done = [...done, ...lines.flatMap((line, i) => (results[i]?.tag ? [{ line, tag: results[i].tag }] : []))];
    const left = lines.filter((_, i) => !results[i]?.tag);
    type(left.length ? writeSheet(left) : '');
    if (left.length)
      problem = `${left.length} ${left.length === 1 ? 'line stays' : 'lines stay'} to be mended: look them through again.`;
  }
</script>

<svelte:head><title>Check many in · Refectum</title></svelte:head>

<section class="mx-auto flex w-full max-w-6xl flex-col gap-3 p-4">
  <h1 class="text-2xl font-semibold">Check many units in</h1>
  <p>
    Paste from a spreadsheet, or open a CSV file. The first line names the columns: <span class="figure"
      >{columns.join(', ')}</span
    >. A model that was here before needs no volts and amps.
  </p>
  <label class="flex flex-col">
    The lines
    <textarea
      class="figure textarea w-full"
      rows="8"
      spellcheck="false"
      value={text}
      oninput={(event) => type(event.currentTarget.value)}
      aria-describedby="many-problem"></textarea>
  </label>
  <div class="flex flex-wrap items-end gap-3">
    <label class="flex flex-col text-sm">
      A file
      <input class="file-input h-9" type="file" accept=".csv,.tsv,.txt,text/csv" onchange={onFile} />
    </label>
    <span class="grow"></span>
    <button class="btn" disabled={busy || !sheet.lines.length} onclick={() => void send(true)}>Look them through</button
    >
    <button class="btn btn-primary" disabled={busy || !good} onclick={() => void send(false)}>
      {good ? `Check ${good} in` : 'Check in'}
    </button>
  </div>
  <p id="many-problem" role="alert" class="min-h-6 text-lg text-error">{sheet.problem ?? problem}</p>

  {#if sheet.lines.length}
    <div class="overflow-x-auto">
      <table class="table text-base">
        <thead>
          <tr>
            <th scope="col">Line</th>
            {#each columns as name (name)}<th scope="col">{name}</th>{/each}
            <th scope="col">Result</th>
          </tr>
        </thead>
        <tbody>
          {#each sheet.lines as line, i (i)}
            <tr class:bg-base-200={checked[i]?.problem}>
              <td class="figure">{i + 1}</td>
              {#each columns as name (name)}<td>{line[name]}</td>{/each}
              <td>{checked.length ? (checked[i]?.problem ?? 'fits') : ''}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
  {/if}
  {#if done.length}
    <h2 class="text-xl font-semibold">Checked in</h2>
    <ul>
      {#each done as { line, tag } (tag)}
        <li>
          <a class="figure link" href="/unit/{tag}">{tag}</a>
          {line.customer}, {line.model} · <a class="link" href="/unit/{tag}/label">label</a>
        </li>
      {/each}
    </ul>
  {/if}
</section>
