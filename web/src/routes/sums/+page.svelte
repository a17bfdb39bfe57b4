<script lang="ts">
  import {
    brushLeft,
    type Chemistry,
    cableDrop,
    dropAtRated,
    hoursToHalf,
    loadTestLimit,
    metricGauges,
    shaftSpeed,
    stateOfCharge,
    twoContact,
    twoContactSays,
  } from '@refectum/core/handbook';
  import { formatNumber, formatQuantity } from '@refectum/core/quantity';
  import Sum from '$lib/parts/Sum.svelte';

  let set = $state<12 | 24>(12);
  let chemistry = $state<Chemistry>('flooded');
  let gauge = $state('16');
  const volts = (value: number) => formatQuantity(value, 'volts', 0.01);
  const percent = (share: number) => `${Math.round(100 * share)} %`;
  const cable = $derived(gauge.startsWith('AWG') ? { awg: Number(gauge.slice(4)) } : { square: Number(gauge) });
  const wires = [
    ...metricGauges.map(([square]) => String(square)),
    ...[14, 12, 10, 8, 6, 4, 2, 1].map((n) => `AWG ${n}`),
  ];
</script>

<svelte:head><title>Sums · Refectum</title></svelte:head>

<div class="mx-auto w-full max-w-5xl p-4">
  <div class="mb-3 flex flex-wrap items-end gap-4">
    <h1 class="text-2xl font-semibold">Sums</h1>
    <label class="flex flex-col text-sm">
      Battery set
      <select class="select h-9 w-28" value={set} onchange={(e) => (set = e.currentTarget.value === '24' ? 24 : 12)}>
        <option value={12}>12 V</option><option value={24}>24 V</option>
      </select>
    </label>
    <label class="flex flex-col text-sm">
      Kind
      <select class="select h-9 w-40" bind:value={chemistry}>
        <option value="flooded">Flooded</option><option value="mat">Absorbed mat</option>
      </select>
    </label>
  </div>
  <div class="grid gap-4 lg:grid-cols-2">
    <Sum
      id="charge"
      name="State of charge"
      asked={[{ id: 'rested', label: 'Rested, V', unit: 'volts', value: '12.45' }]}
      answer={([rested]) =>
        [
          `About ${percent(stateOfCharge(rested!, set, chemistry))} charged.`,
          rested! > 12.9 * (set / 12) ? 'So much is surface charge or a charger: rest it first.' : '',
        ].filter(Boolean)}
      source="Handbook table, from memory. Overnight, or surface charge taken off."
    />
    <Sum
      id="load"
      name="Load test"
      asked={[
        { id: 'rested', label: 'Rested, V', unit: 'volts', value: '12.6' },
        { id: 'celsius', label: 'Battery, °C', unit: 'celsius', value: '20' },
        { id: 'amps', label: 'Cold-cranking, A', unit: 'amps', value: '600' },
      ]}
      answer={([rested, celsius, amps]) => {
        const { volts: least, barred } = loadTestLimit(celsius!, rested!, set);
        return barred ? [barred] : [`${formatNumber(amps! / 2, 0)} A for 15 s: at least ${volts(least)} at the end.`];
      }}
      source="Handbook table, from memory. Ask by which standard the cold-cranking amps are stated."
    />
    <Sum
      id="drain"
      name="Drain to half charge"
      asked={[
        { id: 'hours', label: 'Battery, Ah', unit: 'ampHours', value: '60' },
        { id: 'amps', label: 'Drain, A', unit: 'amps', value: '50m' },
      ]}
      answer={([ampHours, amps]) => {
        const hours = hoursToHalf(ampHours!, amps!);
        return [hours >= 48 ? `${formatNumber(hours / 24, 1)} days.` : `${formatNumber(hours, 1)} hours.`];
      }}
      source="Half the ampere-hours over the amps; a cold or old battery has less."
    />
    <Sum
      id="two-contact"
      name="Two-contact regulator"
      asked={[
        { id: 'first', label: '1 250 engine rpm, 15 A: V', unit: 'volts', value: String(14.1 * (set / 12)) },
        { id: 'second', label: '2 200 engine rpm, 7 A: V', unit: 'volts', value: String(14.5 * (set / 12)) },
        { id: 'celsius', label: '50 mm from the cover, °C', unit: 'celsius', value: '25' },
      ]}
      answer={([first, second, celsius]) =>
        twoContact(first!, second!, celsius!, set).map((one) => twoContactSays[one])}
      source="One design’s numbers, common practice, no source; the model’s own win. Warm for 15 min, cover on; stop and start it before each reading."
    />
    <Sum
      id="cable"
      name="Drop along a cable"
      asked={[
        { id: 'metres', label: 'One way, m', unit: 'metres', value: '3' },
        { id: 'amps', label: 'Current, A', unit: 'amps', value: '90' },
        { id: 'celsius', label: 'Cable, °C', unit: 'celsius', value: '40' },
      ]}
      answer={([metres, amps, celsius]) => {
        const { ohms, volts: drop } = cableDrop(metres!, cable, amps!, celsius!);
        return [`${formatQuantity(ohms, 'ohms')}, ${volts(drop)} along it.`];
      }}
      source="IEC 60228 class 5 or AWG (ASTM B258), from memory; copper by IEC 60028. Joints come on top."
    >
      <label class="mb-5 flex w-32 flex-col">
        Wire
        <select class="select w-full" bind:value={gauge}>
          {#each wires as wire (wire)}<option value={wire}>{wire.startsWith('A') ? wire : `${wire} mm²`}</option>{/each}
        </select>
      </label>
    </Sum>
    <Sum
      id="drop"
      name="A measured drop at rated amps"
      asked={[
        { id: 'volts', label: 'Drop, V', unit: 'volts', value: '0.3' },
        { id: 'amps', label: 'At, A', unit: 'amps', value: '10' },
        { id: 'rated', label: 'Rated, A', unit: 'amps', value: '100' },
      ]}
      answer={([drop, amps, rated]) => {
        const { ohms, volts: atRated } = dropAtRated(drop!, amps!, rated!);
        return [`${formatQuantity(ohms, 'ohms')}: ${volts(atRated)} at ${formatQuantity(rated!, 'amps')}.`];
      }}
      source="Ohm’s law. About 0.5 V along the positive and 0.2 V along the ground at rated output, from memory."
    />
    <Sum
      id="belt"
      name="Belt and pulleys"
      asked={[
        { id: 'rpm', label: 'Engine, rpm', unit: 'rpm', value: '750' },
        { id: 'engine', label: 'Engine pulley, mm', unit: 'millimetres', value: '165' },
        { id: 'unit', label: 'Unit’s pulley, mm', unit: 'millimetres', value: '55' },
      ]}
      answer={([rpm, engine, unit]) => {
        const { ratio, rpm: shaft } = shaftSpeed(rpm!, engine!, unit!);
        return [`${formatNumber(ratio, 2)} : 1, ${formatNumber(shaft, 0)} rpm at the rotor.`];
      }}
      source="Diameters over the belt’s working line; no slip."
    />
    <Sum
      id="brush"
      name="What a brush has left"
      asked={[
        { id: 'new', label: 'New, mm', unit: 'millimetres', value: '10' },
        { id: 'now', label: 'Now, mm', unit: 'millimetres', value: '7.5' },
        { id: 'least', label: 'Least, mm', unit: 'millimetres', value: '5' },
        { id: 'hours', label: 'Run, h', unit: 'hours', value: '2000' },
      ]}
      answer={([fresh, now, least, run]) => {
        const { hours, wearPerThousandHours: wear } = brushLeft(fresh!, now!, least!, run!);
        return [
          hours > 0
            ? `About ${formatNumber(hours, 0)} h more, at ${formatNumber(wear, 2)} mm for each thousand hours.`
            : 'At its least: replace it.',
        ];
      }}
      source="Wear goes on as it did; a gouged ring or a weak spring takes it sooner."
    />
  </div>
</div>
