<script lang="ts">
  import type { Drives, Machine } from '@refectum/core/machines';
  import { formatQuantity } from '@refectum/core/quantity';
  import { crankRules, crankRun, crankWord, engineOf, engineTorque } from '@refectum/core/vehicle';
  import { vehicleOf } from '$lib/job.ts';
  import type { Bench } from '$lib/live/bench.svelte.ts';

  interface Props {
    bench: Bench;
    machine: Machine;
    drives: Drives<Machine>;
  }
  const { bench, machine, drives }: Props = $props();
  const vehicle = $derived(vehicleOf({ ...bench.job, vehicle: bench.setting.vehicle }));
  const engine = $derived(engineOf(vehicle, drives.ratedWatts(machine)));
  let celsius = $state('20');
  let charge = $state('100');
  let cable = $state('1.5');

  /** NaN where nothing is typed too: an emptied field is no 0. */
  const number = (text: string): number => (text.trim() === '' ? NaN : Number(text.trim().replace(',', '.')));
  const within = (value: number, least: number, most: number) => value >= least && value <= most;
  const problem = $derived(
    !within(number(celsius), -40, 60)
      ? 'Battery: from −40 to 60 °C.'
      : !within(number(charge), 0, 100)
        ? 'Charge: from 0 to 100 %.'
        : !within(number(cable), 0, 100)
          ? 'Cables: from 0 to 100 mΩ.'
          : '',
  );
  const crank = $derived({
    ratedVolts: machine.ratedVolts,
    crankingAmps: vehicle.crankingAmps,
    batteryCelsius: number(celsius),
    charge: number(charge) / 100,
    cableOhms: number(cable) / 1000,
    newtonMetres: engineTorque(engine.litres, engine.fuel, number(celsius)),
  });
  /** As cold as its battery. */
  const motor = $derived(drives.fed(machine, [], crank.batteryCelsius).motor);
  const foreseen = $derived(problem ? undefined : crankRun(motor, crank));
  const read = (check: string): number | undefined => {
    const outcome = bench.standing.findLast((reading) => reading.check === check)?.outcome;
    return outcome?.kind === 'value' ? outcome.value : undefined;
  };
  const amps = $derived(read('cranking-amps'));
  const volts = $derived(read('cranking-volts'));
  const slow = $derived.by(() => {
    const heard = bench.standing.findLast((reading) => reading.check === 'key-in-start')?.outcome;
    return heard?.kind === 'finding' && ['slow', 'click'].includes(heard.finding);
  });
  const word = $derived(
    problem || amps === undefined || volts === undefined ? undefined : crankWord(motor, crank, amps, volts, slow),
  );
  const least = $derived((crankRules.leastVolts * machine.ratedVolts) / 12);
</script>

<section class="sheet p-3" aria-label="Cranking">
  <h2 class="text-xl font-semibold">Cranking, foreseen</h2>
  <p class="text-sm">
    This starter, a battery of {vehicle.crankingAmps} A, an engine of {formatQuantity(engine.litres, 'litres', 0.1)}
    {engine.fuel}{vehicle.engineLitres === undefined ? ' as most that it turns: say which above' : ''}.
  </p>
  <div class="mt-2 grid grid-cols-2 gap-2 text-sm">
    <label class="flex flex-col">
      Battery, °C
      <input class="figure input h-9" inputmode="decimal" bind:value={celsius} />
    </label>
    <label class="flex flex-col">
      Charge, %
      <input class="figure input h-9" inputmode="decimal" bind:value={charge} />
    </label>
    <label class="flex flex-col">
      Cables both ways, mΩ
      <input class="figure input h-9" inputmode="decimal" bind:value={cable} />
    </label>
  </div>
  {#if problem}<p role="alert" class="mt-1 border-l-4 border-error px-3 text-sm">{problem}</p>{/if}
  {#if foreseen}
    <dl class="mt-2 grid grid-cols-[max-content_1fr] gap-x-3 text-sm">
      <dt>Foreseen</dt>
      <dd class="figure">
        {formatQuantity(foreseen.amps, 'amps', 1)} at {formatQuantity(
          foreseen.batteryVolts,
          'volts',
          0.1,
        )}{foreseen.rpm < 1 ? ': it stands' : ''}
      </dd>
      <dt>Read</dt>
      <dd class="figure">
        {amps === undefined ? 'no amps yet' : formatQuantity(amps, 'amps', 1)}, {volts === undefined
          ? 'no volts yet'
          : formatQuantity(volts, 'volts', 0.1)}
      </dd>
      {#if volts !== undefined}
        <dt>Shop rule</dt>
        <dd>
          {volts >= least ? 'keeps' : 'below'} the shop’s {formatQuantity(least, 'volts', 0.1)} while cranking: a rule, not
          a reason
        </dd>
      {/if}
    </dl>
  {/if}
  {#if word}<p class="mt-1 border-l-4 border-info px-3 py-1 text-sm" role="status">{word.say}</p>{/if}
</section>
