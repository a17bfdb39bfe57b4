<script lang="ts">
  import { anyOutcomes, findingsOf } from '@refectum/core/checks';
  import { formatQuantity, parseQuantity, type Unit } from '@refectum/core/quantity';
  import type { Snippet } from 'svelte';
  import { inField, keysOn } from '$lib/keys.ts';
  import { otherResistor } from '$lib/live/supply-resistor.ts';
  import type { Bench } from '$lib/live/bench.svelte.ts';
  import type { LeadsNull } from '$lib/job.ts';
  import { whenOf } from '$lib/dates.ts';
  import Ruler from './Ruler.svelte';
  import TwinTable from './TwinTable.svelte';
  import WearLeft from './WearLeft.svelte';

  interface Props {
    bench: Bench;
    /** Between the instructions and the field. */
    before?: Snippet;
    /** The newest null of each meter's leads at other units, by the meter's id. */
    nulls?: Readonly<Record<string, LeadsNull>>;
    /** In place of a check, when none is left. */
    done: Snippet;
  }
  const { bench, before, nulls = {}, done }: Props = $props();
  let entryField = $state<HTMLInputElement>();

  const check = $derived(bench.check);
  const findings = $derived(check ? findingsOf(check) : []);
  const typed = $derived(check && bench.entry && !findings.length ? parseQuantity(bench.entry, check.unit) : undefined);
  const next = $derived(bench.outlook?.next.find((n) => n.check === check?.id));
  const doneIn = $derived(check ? bench.stateFor(check) : bench.setting.assembly);
  const otherState = $derived(
    doneIn === bench.setting.assembly ? undefined : bench.subject.assemblies.find(({ id }) => id === doneIn)?.name,
  );
  const examples: Partial<Record<Unit, string>> = { ohms: '3.1, 1k2 or OL', amps: '0.04 or 40m', millimetres: '7.5' };
  const runExamples: Partial<Record<Unit, string>> = { volts: '6.7', rpm: '2850', newtonMetres: '12' };
  const example = $derived(
    findings.length || !check
      ? '1'
      : check.method.kind === 'run'
        ? (runExamples[check.unit] ?? '72')
        : (examples[check.unit] ?? (bench.at === 'bench' ? '0.52 or 520m' : '13.8')),
  );
  const overRange = $derived(
    !findings.length && check?.method.kind !== 'run' && (check?.unit === 'volts' || check?.unit === 'ohms'),
  );

  /** What asks to be taken again, or else was read last. */
  const again = $derived((bench.asking.at(-1) ?? bench.standing.at(-1))?.check);
  const resistor = $derived(check && otherResistor(check, bench.checks, bench.standing));
  const lastNull = $derived(check?.method.kind === 'leads' ? nulls[bench.setting.meter] : undefined);

  async function takeLastNull() {
    if (!lastNull) return;
    await bench.take({ kind: 'value', value: lastNull.ohms }, `= ${lastNull.ohms}, tag ${lastNull.tag}`);
  }

  $effect(() => {
    void check?.id;
    // Whoever types elsewhere goes on typing there.
    const elsewhere = document.activeElement?.matches('input:not(#entry), textarea');
    if (!elsewhere) entryField?.focus();
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
    if (name === '*' && overRange) void bench.take({ kind: 'over-range' }, 'OL');
    else if (name === '=' && lastNull) void takeLastNull();
    else if (name === 'x' && bench.at === 'bench') void bench.otherLeads();
    else if (name === '+') void bench.skip();
    else if (name === 'Delete') void bench.takeBack();
    else if (name === 'a') void (again && bench.pick(again));
    else if (name === 'ArrowDown' || name === 'ArrowUp') void step(name === 'ArrowDown' ? 1 : -1);
    else return false;
    return true;
  }

  /** Along the whole list of checks, in the order of work. */
  async function step(by: number) {
    const at = bench.checks.findIndex((c) => c.id === check?.id);
    await bench.pick(bench.checks[(at + by + bench.checks.length) % bench.checks.length]?.id);
  }

  function onRecord(event: SubmitEvent) {
    event.preventDefault();
    // At once: who has gone elsewhere by the time it is thought through is not called back.
    entryField?.focus();
    void bench.record();
  }
</script>

<svelte:window onkeydown={onKey} />

{#if check}
  <section class="sheet p-4" aria-label="Check at hand">
    <p class="text-sm">{bench.picked ? 'Picked' : 'Next check'}{next ? `: ${next.reason}` : ''}</p>
    <h2 class="mt-1 text-3xl leading-tight font-semibold">{check.name}</h2>
    <p class="mt-1 text-lg">{check.how}</p>
    {#if otherState}
      <p class="mt-2 border-l-4 border-info px-3 py-1">
        For this the {bench.at === 'bench' ? 'unit has to be' : 'vehicle has to be'}: <strong>{otherState}</strong>.
      </p>
    {/if}
    {#if resistor}
      {@const { needed, before } = resistor}
      <p class="mt-2 border-l-4 border-info px-3 py-1">
        Change the resistor in the supply’s lead: <strong>{needed} Ω</strong>, it was {before} Ω.
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
    {#if check.method.kind === 'finding' && check.method.compared}<TwinTable {bench} {check} />{/if}
    {#if lastNull}
      <p class="mt-2">
        <button class="btn min-h-11" onclick={() => void takeLastNull()}>
          <span class="figure">=</span> Same leads as at {whenOf(lastNull.at)}: {formatQuantity(lastNull.ohms, 'ohms')}
        </button>
        <span class="text-sm">tag {lastNull.tag}, this meter</span>
      </p>
    {/if}
    {@render before?.()}
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
        placeholder={example}
        value={bench.entry}
        oninput={(event) => bench.type(event.currentTarget.value)}
        aria-invalid={bench.problem ? 'true' : undefined}
        aria-describedby={bench.problem ? 'entry-problem' : undefined}
      />
      <button class="btn h-20 text-lg btn-primary">Record</button>
      {#if overRange}
        <button
          type="button"
          class="figure btn h-20 text-lg"
          onclick={() => void bench.take({ kind: 'over-range' }, 'OL')}>OL</button
        >
      {/if}
    </form>
    {#if check.method.kind !== 'leads'}
      <p class="mt-1 flex flex-wrap gap-x-4 text-sm">
        {#each anyOutcomes as { kind, name, key } (kind)}
          <button class="min-h-9 link" onclick={() => void bench.take({ kind }, name)}>
            <span class="figure">{key}</span>
            {name}
          </button>
        {/each}
      </p>
    {/if}
    {#if check.method.kind === 'length' && check.method.fresh && typed?.kind === 'value' && typed.value > 0}
      <WearLeft fresh={check.method.fresh} least={check.method.least} now={typed.value} />
    {/if}
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
  <p class="sheet p-6 text-lg" role="status">Working out what should be read…</p>
{:else}
  <div class="sheet p-6 text-lg">{@render done()}</div>
{/if}
