<script lang="ts">
  import type { Check, TwinPair } from '@refectum/core/checks';
  import { parseQuantity } from '@refectum/core/quantity';
  import { tick, untrack } from 'svelte';
  import type { Bench } from '$lib/live/bench.svelte.ts';

  const { bench, check }: { bench: Bench; check: Check } = $props();

  const blank = () => ({ pins: '', own: '', twin: '' });
  const blanks = () => [blank(), blank(), blank()];
  const draftKey = $derived(`refectum-pairs-${bench.job.tag}`);
  let rows = $state(blanks());
  let problem = $state('');
  let body = $state<HTMLElement>();

  // What was typed of a unit waits for whoever looks at another check, or another unit, meanwhile.
  $effect(() => {
    const draft = sessionStorage.getItem(draftKey);
    untrack(() => (rows = draft ? (JSON.parse(draft) as typeof rows) : blanks()));
  });
  const keepDraft = () => sessionStorage.setItem(draftKey, JSON.stringify(rows));

  const ohms = (text: string): number | undefined => {
    const read = parseQuantity(text, 'ohms');
    return read.kind === 'value' ? read.value : read.kind === 'over-range' ? Infinity : undefined;
  };
  const filled = $derived(rows.filter(({ pins, own, twin }) => pins || own || twin));

  /** Enter goes on to the next field; in the last it makes another row. */
  async function onKey(event: KeyboardEvent) {
    if (event.key !== 'Enter') return;
    event.preventDefault();
    const fields = [...(body?.querySelectorAll('input') ?? [])];
    const at = fields.indexOf(event.target as HTMLInputElement);
    if (at === fields.length - 1) rows.push(blank());
    await tick();
    body?.querySelectorAll('input')[at + 1]?.focus();
  }

  async function compare() {
    const { method } = check;
    if (method.kind !== 'finding' || !method.compared) return;
    const wrong = filled.findIndex(({ own, twin }) => ohms(own) === undefined || ohms(twin) === undefined);
    problem = filled.length === 0 ? 'Type at least one pair of pins.' : '';
    if (wrong >= 0) problem = `Pins ${filled[wrong]!.pins || wrong + 1}: type both in ohms, like 263k, 1.1 or OL.`;
    if (problem) return;
    const pairs = filled.map(({ own, twin }): TwinPair => ({ own: ohms(own)!, twin: ohms(twin)! }));
    const typed = `${filled.length} pairs of pins`;
    const kept = filled.map(({ pins, own, twin }, i) => ({
      pins: pins.trim() || String(i + 1),
      own: own.trim(),
      twin: twin.trim(),
    }));
    await bench.take({ kind: 'finding', finding: method.compared(pairs) }, typed, { pairs: kept }, () => {
      rows = blanks();
      sessionStorage.removeItem(draftKey);
    });
  }
</script>

<table class="mt-3 w-full" aria-label="Pin by pin">
  <thead>
    <tr class="text-left text-sm"
      ><th scope="col">Pins</th><th scope="col">This one, Ω</th><th scope="col">Known-good twin, Ω</th></tr
    >
  </thead>
  <tbody bind:this={body} onkeydown={onKey} oninput={keepDraft}>
    {#each rows as row, i (i)}
      <tr>
        <td class="pr-2"
          ><input
            class="input w-full"
            type="text"
            aria-label="Pins {i + 1}"
            maxlength="30"
            placeholder="1 to 2"
            bind:value={row.pins}
          /></td
        >
        <td class="pr-2"
          ><input
            class="figure input w-full"
            type="text"
            aria-label="This one {i + 1}"
            maxlength="20"
            placeholder="263k"
            bind:value={row.own}
          /></td
        >
        <td
          ><input
            class="figure input w-full"
            type="text"
            aria-label="Twin {i + 1}"
            maxlength="20"
            placeholder="OL"
            bind:value={row.twin}
          /></td
        >
      </tr>
    {/each}
  </tbody>
</table>
{#if problem}<p role="alert" class="mt-1 border-l-4 border-error px-3 py-1">{problem}</p>{/if}
<p class="mt-2"><button class="btn" onclick={() => void compare()}>Compare and record</button></p>
