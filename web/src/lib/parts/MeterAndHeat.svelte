<script lang="ts">
  import { parseQuantity } from '@refectum/core/quantity';
  import { nullOf } from '$lib/limits.ts';
  import type { Bench } from '$lib/live/bench.svelte.ts';

  const { bench }: { bench: Bench } = $props();

  const nulled = $derived(bench.at === 'bench' && nullOf(bench.standing, bench.setting.meter) !== undefined);

  const onCelsius = (event: Event & { currentTarget: HTMLInputElement }) => {
    const read = parseQuantity(event.currentTarget.value, 'celsius');
    const fits = read.kind === 'value' && read.value >= -40 && read.value <= 200;
    event.currentTarget.setCustomValidity(fits ? '' : 'Type the temperature of the part in °C, from −40 to 200.');
    if (fits) void bench.change({ celsius: read.value });
    else event.currentTarget.reportValidity();
  };
</script>

<div class="flex flex-col text-sm">
  <div class="flex justify-between">
    <label for="meter-in-hand">Meter</label>
    {#if nulled}
      <button class="min-h-6 link" onclick={() => void bench.otherLeads()}
        ><span class="figure">x</span> other leads</button
      >
    {/if}
  </div>
  <select
    id="meter-in-hand"
    class="select h-9 w-40"
    value={bench.setting.meter}
    onchange={(e) => void bench.useMeter(e.currentTarget.value)}
  >
    {#each bench.job.meters.filter((m) => !m.retired || m.known.id === bench.setting.meter) as { known } (known.id)}
      <option value={known.id}>{known.name}</option>
    {/each}
  </select>
</div>
<label class="flex flex-col text-sm">
  {bench.at === 'bench' ? 'Part' : 'Outside'}, °C
  <input
    class="figure input h-9 w-16 px-2"
    type="text"
    inputmode="decimal"
    value={bench.setting.celsius}
    onchange={onCelsius}
  />
</label>
