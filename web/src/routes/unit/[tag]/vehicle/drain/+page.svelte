<script lang="ts">
  import { formatQuantity } from '@refectum/core/quantity';
  import { hoursToHalf } from '@refectum/core/handbook';
  import { mostAsleep, outputCable, sleepMinutes } from '@refectum/core/vehicle';
  import { whenOf } from '$lib/dates.ts';
  import { tagFacts, vehicleOf } from '$lib/job.ts';
  import { watchChanges } from '$lib/live/changes.ts';
  import { DrainHunt } from '$lib/live/drain.svelte.ts';
  import { outbox } from '$lib/live/outbox.svelte.ts';
  import { refresh } from '$lib/live/refresh.ts';
  import Tag from '$lib/parts/Tag.svelte';

  const { data } = $props();
  const hunt = new DrainHunt(
    () => data.job,
    () => data.person,
  );
  const tag = $derived(data.job.tag);
  const log = $derived(hunt.log);
  const vehicle = $derived(vehicleOf(data.job));
  let now = $state(Date.now());
  let circuitField = $state<HTMLInputElement>();
  let ampsField = $state<HTMLInputElement>();

  /** Until everything sleeps, ms; below 0 it does. */
  const left = $derived(log.asleepAt ? Date.parse(log.asleepAt) - now : 0);
  const clock = $derived(`${Math.floor(left / 60_000)}:${String(Math.floor(left / 1000) % 60).padStart(2, '0')}`);
  const days = $derived(
    log.total && log.total > mostAsleep ? hoursToHalf(vehicle.ampHours, log.total) / 24 : undefined,
  );
  const begun = $derived(log.shutAt !== undefined);
  const first = $derived(log.total === undefined);
  const largest = $derived(Math.max(log.total ?? 0, ...log.shares.map(({ amps }) => amps)));
  const viewer = $derived(data.person.role === 'viewer');
  const steps = $derived([...hunt.steps].filter(({ step }) => step.kind !== 'struck').reverse());

  $effect(() => {
    const ticking = setInterval(() => (now = Date.now()), 1000);
    return () => clearInterval(ticking);
  });
  $effect(() => {
    const again = (changed: number) => {
      if (changed === tag) void refresh();
    };
    const off = [
      watchChanges(
        () => data.asOf,
        again,
        () => void refresh(),
      ),
      outbox.onDelivered(again),
    ];
    return () => off.forEach((end) => end());
  });
  $effect(() => {
    if (begun) (first ? ampsField : circuitField)?.focus();
  });

  function onRecord(event: SubmitEvent) {
    event.preventDefault();
    if (hunt.record()) circuitField?.focus();
    else ampsField?.focus();
  }
  function outOfCable() {
    hunt.circuit = outputCable;
    ampsField?.focus();
  }
  const told = (step: (typeof steps)[number]['step']): string => {
    if (step.kind === 'shut') return 'Shut, key out';
    if (step.kind === 'now') return 'Drain as it is';
    return step.kind === 'out' ? `${step.circuit} out${step.leftOut ? ', left out' : ''}` : '';
  };
</script>

<svelte:head><title>Drain of tag {tag} · Refectum</title></svelte:head>

<section class="flex flex-col gap-4 p-4">
  <div class="flex items-stretch gap-3">
    <div class="grow"><Tag facts={tagFacts(data.job)} wide /></div>
    <a class="btn h-auto" href="/unit/{tag}/vehicle">Vehicle</a>
    <a class="btn h-auto" href="/unit/{tag}/letter">Letter</a>
  </div>
  <h1 class="text-2xl font-semibold">Drain, fuse by fuse</h1>
  <div class="grid gap-4 lg:grid-cols-[minmax(0,1fr)_22rem]">
    <div class="flex flex-col gap-4">
      {#if !log.shutAt}
        <section class="sheet p-4" aria-label="Before the first reading">
          <h2 class="text-3xl leading-tight font-semibold">Shut the vehicle</h2>
          <p class="mt-1 text-lg">
            Clamp zeroed, round the negative cable; or the ammeter in series. Fuse box within reach, then key out, doors
            shut, the bonnet latch pressed home.
          </p>
          <p class="mt-2 border-l-4 border-warning px-3 py-1">
            In series: bridge the ammeter while anything switches on, its fuse holds 10 A. A door opened wakes
            everything: begin again.
          </p>
          <!-- svelte-ignore a11y_autofocus -->
          <button
            class="btn mt-4 h-16 text-lg btn-primary"
            disabled={viewer}
            autofocus
            onclick={() => void hunt.shut()}
          >
            It is shut: start the {sleepMinutes} minutes
          </button>
        </section>
      {:else}
        <section class="sheet p-4" aria-label="Reading at hand">
          {#if left > 0}
            <p class="text-sm">Shut at {whenOf(log.shutAt)}. Modules may sleep as late as {whenOf(log.asleepAt!)}.</p>
            <h2 class="mt-1 text-3xl leading-tight font-semibold">
              <span class="figure" role="timer">{clock}</span> until everything sleeps
            </h2>
            <p class="mt-1 text-lg">
              Leave it alone. A reading taken now is kept, and marked as early; see whether the drain still falls.
            </p>
          {:else if log.total === undefined}
            <h2 class="text-3xl leading-tight font-semibold">The drain with everything in</h2>
            <p class="mt-1 text-lg">Everything sleeps. Leave the circuit empty, type the amps.</p>
          {:else}
            <h2 class="text-3xl leading-tight font-semibold">Pull one fuse, read, put it back</h2>
            <p class="mt-1 text-lg">
              Name the circuit, type the amps with it out. A fuse put back may wake its module: wait until the drain is
              as before, or leave it out.
            </p>
          {/if}
          <form class="mt-3 flex flex-wrap items-end gap-3" onsubmit={onRecord}>
            <label class="flex grow flex-col">
              Circuit out; empty: none
              <input
                bind:this={circuitField}
                class="input h-16 w-full text-2xl"
                autocomplete="off"
                maxlength="60"
                placeholder={log.total === undefined ? '' : 'F12 radio'}
                bind:value={hunt.circuit}
                oninput={() => (hunt.problem = '')}
              />
            </label>
            <label class="flex flex-col">
              Drain, A
              <input
                bind:this={ampsField}
                class="figure input h-16 w-44 text-3xl"
                autocomplete="off"
                inputmode="decimal"
                placeholder="0.42"
                bind:value={hunt.amps}
                oninput={() => (hunt.problem = '')}
                aria-invalid={hunt.problem ? 'true' : undefined}
                aria-describedby="drain-problem"
              />
            </label>
            <button class="btn h-16 text-lg btn-primary" disabled={viewer}>Record</button>
            <div class="flex w-full flex-wrap items-center gap-4">
              <label class="flex min-h-11 items-center gap-2">
                <input type="checkbox" class="checkbox" bind:checked={hunt.leftOut} disabled={!hunt.circuit.trim()} /> It
                is left out
              </label>
              {#if log.total !== undefined}
                <button type="button" class="min-h-11 link" onclick={outOfCable}>{outputCable}</button>
              {/if}
            </div>
          </form>
          <p id="drain-problem" role="alert" class="min-h-6 text-lg text-error">{hunt.problem}</p>
        </section>
      {/if}

      {#if log.conclusion}
        <section class="sheet p-4" aria-label="What it says">
          <p class="text-xl" role="status">{log.conclusion}</p>
          {#if days}
            <p class="mt-1">
              Half of a full {vehicle.ampHours} Ah battery is gone in {days < 2
                ? `${Math.round(days * 24)} hours`
                : `${Math.round(days)} days`}.
            </p>
          {/if}
          {#if log.shares.some(({ early }) => early)}
            <p class="mt-2 border-l-4 border-warning px-3 py-1">
              Some were read before everything slept: repeat what you build on.
            </p>
          {/if}
          {#if hunt.readings.length && !viewer}
            <button class="btn mt-3" onclick={() => void hunt.takeAsReadings()}>
              Take {hunt.readings.map(({ amps }) => formatQuantity(amps, 'amps')).join(' and ')} as read on the vehicle
            </button>
          {/if}
        </section>
      {/if}

      {#if log.shares.length}
        <table class="sheet w-full">
          <caption class="sr-only">What each circuit takes</caption>
          <thead>
            <tr>
              <th scope="col" class="p-2 text-left">Circuit</th>
              <th scope="col" class="p-2 text-left">Takes</th>
              <th scope="col" class="w-1/3 p-2"><span class="sr-only">Its share of the drain</span></th>
              <th scope="col" class="p-2 text-left">Judged</th>
            </tr>
          </thead>
          <tbody>
            {#each log.shares as { id, circuit, amps, sigma, word, leftOut, early } (id)}
              <tr class="border-t border-base-300">
                <th scope="row" class="p-2 text-left" class:font-normal={word !== 'drains'}>
                  {circuit}{leftOut ? ', left out' : ''}
                </th>
                <td class="figure p-2">{amps.toFixed(3)} ± {(2 * sigma).toFixed(3)} A</td>
                <td class="p-2">
                  <span
                    class="block h-3"
                    class:bg-primary={word === 'drains'}
                    class:bg-base-300={word !== 'drains'}
                    style:width="{Math.max(0, Math.min(100, (100 * amps) / largest))}%"
                  ></span>
                </td>
                <td class="p-2">{word}{early ? ', early' : ''}</td>
              </tr>
            {/each}
          </tbody>
        </table>
      {/if}
    </div>

    <section class="sheet p-4" aria-label="Log">
      <h2 class="text-lg font-semibold">Log</h2>
      <ul>
        {#each steps as { id, at, step, technician } (id)}
          {@const struck = hunt.isStruck(id)}
          <li class="border-b border-dashed border-base-300 py-2" class:line-through={struck}>
            <div class="flex items-baseline justify-between gap-2 text-sm">
              <span><span class="figure">{whenOf(at)}</span> {told(step)}</span>
              {#if !struck && !viewer}
                <button class="link" onclick={() => void hunt.strike(id)}>strike</button>
              {/if}
            </div>
            {#if 'amps' in step}<p class="figure text-xl font-semibold">{formatQuantity(step.amps, 'amps')}</p>{/if}
            <p class="text-sm">{technician}{struck ? ', struck out' : ''}</p>
          </li>
        {:else}
          <li class="py-2">Nothing yet.</li>
        {/each}
      </ul>
      {#if log.shutAt && !viewer}
        <button class="btn mt-3 w-full" onclick={() => void hunt.shut()}>Opened and shut again</button>
      {/if}
    </section>
  </div>
</section>
