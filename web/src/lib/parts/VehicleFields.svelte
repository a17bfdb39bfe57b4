<script lang="ts">
  import { type Vehicle, type VehicleNumber, vehicleNumbers } from '@refectum/core/vehicle';
  import { parseQuantity } from '@refectum/core/quantity';
  import { vehicleOf } from '$lib/job.ts';
  import type { Bench } from '$lib/live/bench.svelte.ts';

  const { bench }: { bench: Bench } = $props();
  const vehicle = $derived(vehicleOf({ ...bench.job, vehicle: bench.setting.vehicle }));
  const numbers: readonly VehicleNumber[] = ['crankingAmps', 'ampHours'];

  const change = (more: Partial<Vehicle>) => void bench.change({ vehicle: { ...vehicle, ...more } });
  function onNumber(event: Event & { currentTarget: HTMLInputElement }, name: VehicleNumber) {
    const field = event.currentTarget;
    const { least, most, symbol } = vehicleNumbers[name];
    const read = parseQuantity(field.value, name === 'ampHours' ? 'ampHours' : 'amps');
    const fits = read.kind === 'value' && read.value >= least && read.value <= most;
    field.setCustomValidity(fits ? '' : `Type ${least} to ${most} ${symbol}.`);
    if (fits) change({ [name]: read.value });
    else field.reportValidity();
  }
</script>

<details class="sheet px-3">
  <summary class="min-h-11 cursor-pointer py-2.5"
    >Battery: {vehicle.battery === 'mat' ? 'absorbed mat' : 'flooded'}, {vehicle.crankingAmps} A, {vehicle.ampHours} Ah</summary
  >
  <div class="flex flex-wrap gap-3 pb-3">
    <label class="flex flex-col text-sm">
      Kind
      <select
        class="select h-9 w-36"
        value={vehicle.battery}
        onchange={(e) => change({ battery: e.currentTarget.value as Vehicle['battery'] })}
      >
        <option value="flooded">Flooded</option>
        <option value="mat">Absorbed mat</option>
      </select>
    </label>
    {#each numbers as name (name)}
      <label class="flex flex-col text-sm">
        {vehicleNumbers[name].name}, {vehicleNumbers[name].symbol}
        <input
          class="figure input h-9 w-28"
          type="text"
          inputmode="decimal"
          value={vehicle[name]}
          onchange={(e) => onNumber(e, name)}
        />
      </label>
    {/each}
  </div>
</details>
