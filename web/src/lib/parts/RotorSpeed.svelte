<script lang="ts">
  import { shaftSpeed } from '@refectum/core/handbook';
  import { formatNumber, parseQuantity, type Unit } from '@refectum/core/quantity';
  import { onMount } from 'svelte';

  const { polePairs: ownPolePairs, onuse }: { polePairs: number; onuse: (rpm: number) => void } = $props();
  const pulleyKey = 'refectum-stand-pulley';
  let drive = $state('');
  let standPulley = $state('');
  let unitPulley = $state('');
  let hertz = $state('');
  // Another may be tried, until another unit is on screen: not every plate is right.
  let polePairs = $derived(ownPolePairs);

  /** A typed number above 0; undefined while empty, else why it is none. */
  function read(name: string, text: string, unit: Unit): number | string | undefined {
    if (text.trim() === '') return undefined;
    const entry = parseQuantity(text, unit);
    return entry.kind === 'value' && entry.value > 0 ? entry.value : `${name}: type a number above 0, like 360.`;
  }
  // Hertz are read as turns a minute are: a plain number.
  const typed = $derived({
    drive: read('Stand or engine, rpm', drive, 'rpm'),
    hertz: read('Tap, Hz', hertz, 'rpm'),
    standPulley: read('Its pulley, mm', standPulley, 'millimetres'),
    unitPulley: read('Unit’s pulley, mm', unitPulley, 'millimetres'),
  });
  const problem = $derived(Object.values(typed).find((one) => typeof one === 'string'));
  const byBelt = $derived.by(() => {
    const { drive, standPulley, unitPulley } = typed;
    return typeof drive === 'number' && typeof standPulley === 'number' && typeof unitPulley === 'number'
      ? shaftSpeed(drive, standPulley, unitPulley).rpm
      : undefined;
  });
  const byTap = $derived(typeof typed.hertz === 'number' ? (60 * typed.hertz) / polePairs : undefined);
  const slip = $derived(byBelt && byTap ? 1 - byTap / byBelt : undefined);

  onMount(() => {
    standPulley = localStorage.getItem(pulleyKey) ?? '';
  });
</script>

<details class="mt-2">
  <summary class="min-h-9 cursor-pointer py-1.5 text-sm">Rotor speed from belt or phase tap</summary>
  <div class="grid grid-cols-2 gap-2 text-sm">
    <label class="flex flex-col">
      Stand or engine, rpm
      <input class="figure input h-9" inputmode="numeric" bind:value={drive} />
    </label>
    <label class="flex flex-col">
      Tap, Hz
      <input class="figure input h-9" inputmode="decimal" bind:value={hertz} />
    </label>
    <label class="flex flex-col">
      Its pulley, mm
      <input
        class="figure input h-9"
        inputmode="decimal"
        bind:value={standPulley}
        onchange={() => localStorage.setItem(pulleyKey, standPulley)}
      />
    </label>
    <label class="flex flex-col">
      Pole pairs
      <select class="select h-9" bind:value={polePairs}>
        {#each Array.from({ length: 11 }, (_, n) => n + 2) as pairs (pairs)}<option value={pairs}>{pairs}</option
          >{/each}
      </select>
    </label>
    <label class="flex flex-col">
      Unit’s pulley, mm
      <input class="figure input h-9" inputmode="decimal" bind:value={unitPulley} />
    </label>
  </div>
  {#if problem}<p role="alert" class="mt-1 border-l-4 border-error px-3 text-sm">{problem}</p>{/if}
  <p class="mt-1 text-sm" role="status">
    {#if byBelt}By the belt {formatNumber(byBelt, 0)} rpm.{/if}
    {#if byTap}By the tap {formatNumber(byTap, 0)} rpm.{/if}
    {#if slip !== undefined && slip > 0.02}The belt slips {Math.round(100 * slip)} %.{/if}
    {#if slip !== undefined && slip < -0.02}The tap is faster than the belt: other pulleys, or other pole pairs.{/if}
  </p>
  {#if byTap ?? byBelt}
    <button type="button" class="btn min-h-11" onclick={() => onuse(Math.round((byTap ?? byBelt)!))}>
      Take {formatNumber((byTap ?? byBelt)!, 0)} rpm
    </button>
  {/if}
</details>
