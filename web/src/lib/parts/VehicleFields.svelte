<script lang="ts">
  import { engineOf, type Fuel, type Vehicle, vehicleNumbers } from '@refectum/core/vehicle';
  import { formatQuantity, parseQuantity } from '@refectum/core/quantity';
  import { vehicleOf } from '$lib/job.ts';
  import type { Bench } from '$lib/live/bench.svelte.ts';
  import type { SettingChange } from '$lib/setting.ts';

  interface Props {
    bench: Bench;
    /** Of the starter, where it is the unit. */
    ratedWatts?: number | undefined;
  }
  const { bench, ratedWatts }: Props = $props();
  const vehicle = $derived(vehicleOf({ ...bench.job, vehicle: bench.setting.vehicle }));
  const units = { crankingAmps: 'amps', ampHours: 'ampHours', engineLitres: 'litres' } as const;
  const engine = $derived(engineOf(vehicle, ratedWatts));

  const change = (vehicle: SettingChange['vehicle']) => void bench.change({ vehicle });
  function onNumber(event: Event & { currentTarget: HTMLInputElement }, name: keyof typeof units) {
    const field = event.currentTarget;
    const { least, most, symbol } = vehicleNumbers[name];
    // An engine may stay unknown.
    if (name === 'engineLitres' && field.value.trim() === '') {
      field.setCustomValidity('');
      return change({ engineLitres: null });
    }
    const read = parseQuantity(field.value, units[name]);
    const fits = read.kind === 'value' && read.value >= least && read.value <= most;
    field.setCustomValidity(fits ? '' : `Type ${least} to ${most} ${symbol}.`);
    if (fits) change({ [name]: read.value });
    else field.reportValidity();
  }
</script>

<details class="sheet px-3">
  <summary class="min-h-11 cursor-pointer py-2.5"
    >Battery: {vehicle.battery === 'mat' ? 'absorbed mat' : 'flooded'}, {vehicle.crankingAmps} A, {vehicle.ampHours} Ah; engine:
    {vehicle.engineLitres === undefined
      ? `${vehicle.fuel ? `${vehicle.fuel}, size ` : ''}not known`
      : `${formatQuantity(vehicle.engineLitres, 'litres', 0.1)} ${engine.fuel}`}</summary
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
    {#each Object.keys(units) as (keyof typeof units)[] as name (name)}
      <label class="flex flex-col text-sm">
        {vehicleNumbers[name].name}, {vehicleNumbers[name].symbol}
        <input
          class="figure input h-9 w-28"
          type="text"
          inputmode="decimal"
          value={vehicle[name] ?? ''}
          placeholder={name === 'engineLitres' ? String(engine.litres) : ''}
          onchange={(e) => onNumber(e, name)}
        />
      </label>
    {/each}
    <label class="flex flex-col text-sm">
      Fuel
      <select
        class="select h-9 w-28"
        value={engine.fuel}
        onchange={(e) => change({ fuel: e.currentTarget.value as Fuel })}
      >
        <option value="petrol">petrol</option>
        <option value="diesel">diesel</option>
      </select>
    </label>
  </div>
</details>
