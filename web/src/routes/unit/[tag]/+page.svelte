<script lang="ts">
  import { findingsOf } from '@refectum/core/checks';
  import { multimeters } from '@refectum/core/instruments';
  import { parseQuantity } from '@refectum/core/quantity';
  import { inField, keysOn } from '$lib/keys.ts';
  import { followBench } from '$lib/live/follow-bench.svelte.ts';
  import { outbox } from '$lib/live/outbox.svelte.ts';
  import Anatomy from '$lib/parts/Anatomy.svelte';
  import Ruler from '$lib/parts/Ruler.svelte';
  import Suspects from '$lib/parts/Suspects.svelte';
  import Tag from '$lib/parts/Tag.svelte';
  import Tape from '$lib/parts/Tape.svelte';

  const { data } = $props();
  const following = followBench(() => data);
  const bench = $derived(following.current);
  let entryField = $state<HTMLInputElement>();
  let part = $state<string>();

  const tag = $derived(data.job.tag);
  const check = $derived(bench.check);
  const findings = $derived(check ? findingsOf(check) : []);
  const typed = $derived(check && bench.entry && !findings.length ? parseQuantity(bench.entry, check.unit) : undefined);
  const next = $derived(bench.outlook?.next.find((n) => n.check === check?.id));
  const waiting = $derived(new Set(outbox.waiting.map(({ id }) => id)));
  const assemblyName = $derived(bench.family.assemblies.find((a) => a.id === check?.assembly)?.name);
  const otherAssembly = $derived(check?.assembly && check.assembly !== bench.place.assembly);

  $effect(() => {
    // A part touched on one unit's drawing says nothing about the next unit.
    void tag;
    part = undefined;
  });
  $effect(() => {
    void check?.id;
    entryField?.focus();
  });

  function onKey(event: KeyboardEvent) {
    if (event.ctrlKey || event.altKey || event.metaKey || event.defaultPrevented) return;
    const open = event.target === entryField && bench.entry === '';
    if (inField(event) && !open) return;
    if (keysOn() && key(event.key)) event.preventDefault();
    else if (!inField(event) && /^[0-9.,\-oO]$/.test(event.key)) {
      // Digits go to the reading, wherever the hand was.
      event.preventDefault();
      bench.type(bench.entry + event.key);
      entryField?.focus();
    }
  }

  function key(name: string): boolean {
    if (name === '*' && !findings.length) void bench.take({ kind: 'over-range' }, 'OL');
    else if (name === '+') void bench.skip();
    else if (name === 'Delete') void bench.takeBack();
    else if (name === 'ArrowDown' || name === 'ArrowUp') void step(name === 'ArrowDown' ? 1 : -1);
    else return false;
    return true;
  }

  /** Along the whole list of checks, in the order of work. */
  async function step(by: number) {
    const at = bench.checks.findIndex((c) => c.id === check?.id);
    await bench.pick(bench.checks[(at + by + bench.checks.length) % bench.checks.length]?.id);
  }

  async function onRecord(event: SubmitEvent) {
    event.preventDefault();
    await bench.record();
    entryField?.focus();
  }
  const onCelsius = (event: Event & { currentTarget: HTMLInputElement }) => {
    const read = parseQuantity(event.currentTarget.value, 'celsius');
    const fits = read.kind === 'value' && read.value >= -40 && read.value <= 200;
    event.currentTarget.setCustomValidity(fits ? '' : 'Type the temperature of the part in °C, from −40 to 200.');
    if (fits) void bench.change({ celsius: read.value });
    else event.currentTarget.reportValidity();
  };
</script>

<svelte:window onkeydown={onKey} />
<svelte:head><title>Tag {data.job.tag} · Refectum</title></svelte:head>

<h1 class="sr-only">Bench: tag {data.job.tag}, {data.job.model}</h1>
<div class="flex flex-wrap items-stretch gap-3 px-4 pt-3">
  <div class="min-w-72 flex-1 basis-0"><Tag job={bench.job} wide /></div>
  <div class="flex flex-wrap items-end gap-3">
    <label class="flex flex-col text-sm">
      Meter
      <select
        class="select h-9 w-36"
        value={bench.place.meter}
        onchange={(e) => void bench.change({ meter: e.currentTarget.value })}
      >
        {#each multimeters as meter (meter.id)}<option value={meter.id}>{meter.name}</option>{/each}
      </select>
    </label>
    <label class="flex flex-col text-sm">
      Part, °C
      <input
        class="figure input h-9 w-20"
        type="text"
        inputmode="decimal"
        value={bench.place.celsius}
        onchange={onCelsius}
      />
    </label>
    <label class="flex flex-col text-sm">
      State
      <select
        class="select h-9 w-44"
        value={bench.place.assembly}
        onchange={(e) => void bench.change({ assembly: e.currentTarget.value })}
      >
        {#each bench.family.assemblies as state (state.id)}<option value={state.id}>{state.name}</option>{/each}
      </select>
    </label>
    <a class="btn h-9 btn-primary" href="/unit/{data.job.tag}/verdict">Verdict</a>
    <a class="btn h-9" href="/unit/{data.job.tag}/report">Report</a>
  </div>
</div>

<div class="grid grow grid-cols-[minmax(0,1fr)] gap-4 p-4 lg:grid-cols-[22rem_minmax(0,1fr)_19rem]">
  <div class="flex flex-col gap-3">
    <div class="sheet p-2">
      <Anatomy
        machine={data.job.machine}
        parts={bench.diagnosis?.parts}
        {check}
        selected={part}
        onselect={(p) => (part = p)}
      />
    </div>
    <label class="flex flex-col">
      Any check
      <select class="select w-full" value={check?.id} onchange={(e) => void bench.pick(e.currentTarget.value)}>
        {#each bench.family.assemblies as state (state.id)}
          <optgroup label={state.name}>
            {#each bench.checks.filter((c) => (c.assembly || bench.family.assemblies[0]!.id) === state.id) as c (c.id)}
              <option value={c.id}>{c.name}</option>
            {/each}
          </optgroup>
        {/each}
      </select>
    </label>
    {#if bench.outlook?.hidden.length}
      <section aria-label="What could still hide">
        <h2 class="font-semibold">What could still hide</h2>
        <ul class="text-sm">
          {#each bench.outlook.hidden as hidden (hidden)}<li class="py-0.5">{hidden}</li>{/each}
        </ul>
      </section>
    {/if}
  </div>

  <div class="flex flex-col gap-3">
    {#if check}
      <section class="sheet p-4" aria-label="Check at hand">
        <p class="text-sm">{bench.picked ? 'Picked' : 'Next check'}{next ? `: ${next.reason}` : ''}</p>
        <h2 class="mt-1 text-3xl leading-tight font-semibold">{check.name}</h2>
        <p class="mt-1 text-lg">{check.how}</p>
        {#if otherAssembly}
          <p class="mt-2 border-l-4 border-info px-3 py-1">
            For this the unit has to be: <strong>{assemblyName}</strong>.
          </p>
        {/if}
        {#each check.cautions as caution (caution)}
          <p class="mt-2 border-l-4 border-warning px-3 py-1">{caution}</p>
        {/each}

        {#if findings.length}
          <div class="mt-3 flex flex-wrap gap-2">
            {#each findings as finding, i (finding.id)}
              <button
                class="btn min-h-11"
                onclick={() => void bench.take({ kind: 'finding', finding: finding.id }, finding.name)}
              >
                <span class="figure">{i + 1}</span>
                {finding.name}
              </button>
            {/each}
          </div>
        {/if}
        <form class="mt-3 flex items-stretch gap-2" onsubmit={onRecord}>
          <label class="sr-only" for="entry">Reading: {check.name}</label>
          <input
            id="entry"
            bind:this={entryField}
            data-keys="open"
            type="text"
            class="figure input h-20 w-full text-5xl placeholder:text-xl placeholder:text-base-content/80"
            class:input-error={bench.problem}
            autocomplete="off"
            spellcheck="false"
            placeholder={findings.length
              ? '1'
              : check.unit === 'volts'
                ? '0.52 or 520m'
                : check.unit === 'ohms'
                  ? '3.1, 1k2 or OL'
                  : '7.5'}
            value={bench.entry}
            oninput={(event) => bench.type(event.currentTarget.value)}
            aria-invalid={bench.problem ? 'true' : undefined}
            aria-describedby={bench.problem ? 'entry-problem' : undefined}
          />
          <button class="btn h-20 text-lg btn-primary">Record</button>
          {#if !findings.length && check.unit !== 'millimetres'}
            <button
              type="button"
              class="figure btn h-20 text-lg"
              onclick={() => void bench.take({ kind: 'over-range' }, 'OL')}>OL</button
            >
          {/if}
        </form>
        {#if bench.problem}
          <p id="entry-problem" role="alert" class="mt-2 border-l-4 border-error px-3 py-1 text-lg">{bench.problem}</p>
        {/if}
        {#if bench.ruler && bench.ruler.check === check.id}
          <div class="mt-3">
            <Ruler
              ruler={bench.ruler}
              value={typed?.kind === 'value' ? typed.value : undefined}
              over={typed?.kind === 'over-range'}
            />
          </div>
        {/if}
      </section>
    {:else if !bench.outlook}
      <p class="sheet p-6 text-lg" role="status">Working out what this unit should read…</p>
    {:else}
      <p class="sheet p-6 text-lg">
        {bench.outlook.stop} <a class="link" href="/unit/{data.job.tag}/verdict">To the verdict</a>.
      </p>
    {/if}

    {#if bench.outlook}
      <section class="sheet p-3" aria-label="Worth doing next">
        {#if bench.outlook.stop}
          <p class="border-l-4 border-success px-3 py-1">
            {bench.outlook.stop} <a class="link" href="/unit/{data.job.tag}/verdict">To the verdict</a>.
          </p>
        {/if}
        <h2 class="font-semibold">Worth doing next</h2>
        <ol>
          {#each bench.outlook.next.filter((n) => n.check !== check?.id).slice(0, 4) as n (n.check)}
            <li>
              <button
                class="flex min-h-11 w-full items-center gap-3 px-2 text-left hover:bg-base-200"
                onclick={() => void bench.pick(n.check)}
              >
                <span class="grow">{n.name}</span>
                <span class="figure shrink-0 text-sm"
                  >{n.minutes}{n.setupMinutes ? ` + ${n.setupMinutes}` : ''} min</span
                >
              </button>
            </li>
          {/each}
        </ol>
      </section>
    {/if}
  </div>

  <div class="flex max-h-[calc(100vh-9rem)] flex-col gap-3 max-lg:max-h-none">
    <div class="sheet min-h-24 flex-1 overflow-y-auto p-3">
      {#if bench.diagnosis}<Suspects diagnosis={bench.diagnosis} apart={bench.outlook?.apart} {part} />{:else}<p
          role="status"
        >
          …
        </p>{/if}
    </div>
    <div class="sheet min-h-24 flex-1 overflow-y-auto p-3">
      <Tape
        readings={bench.readings}
        checks={bench.checks}
        diagnosis={bench.diagnosis}
        {waiting}
        onstrike={(id) => void bench.strike(id)}
        onrepeat={(id) => void bench.pick(id)}
      />
    </div>
  </div>
</div>
