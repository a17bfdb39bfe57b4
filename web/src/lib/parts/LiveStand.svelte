<script lang="ts">
  import { formatNumber, formatQuantity } from '@refectum/core/quantity';
  import { isFree, keysOn } from '$lib/keys.ts';
  import { tellInstrument } from '$lib/live/live-words.ts';
  import { drawMost, sweep } from '$lib/live/stand-courses.ts';
  import type { StandInstruments } from '$lib/live/stand-instruments.svelte.ts';
  import type { RunStand } from '$lib/live/run-stand.svelte.ts';
  import type { OutputSchool } from '$lib/rules.ts';
  import { untrack } from 'svelte';
  import LiveHead from './LiveHead.svelte';

  interface Props {
    stand: RunStand;
    live: StandInstruments;
    tag: number;
    volts: number;
    /** How this shop reads an output. */
    school: OutputSchool;
    polePairs: number;
    /** What the meter in hand shows of alternating volts, up to here. */
    bandwidthHertz: number | undefined;
    /** The state of a unit clamped on the simulated stand; undefined where the stand is a real one. */
    simulated: string | undefined;
    /** How a regulator that a computer commands is told; undefined for any other. */
    commands: { readonly hertz: number | undefined } | undefined;
  }
  const { stand, live, tag, volts, school, polePairs, bandwidthHertz, simulated, commands }: Props = $props();
  let rpm = $state('3000');
  let amps = $state('40');
  let percent = $state('60');
  let rpmField = $state<HTMLInputElement>();
  let ampsField = $state<HTMLInputElement>();

  const mayWrite = $derived(stand.mayWrite);
  const maySet = $derived(mayWrite && live.listens);
  // A newer word of the server on the same unit is no reason to begin anew, still less to stop it.
  const clampedAs = $derived(simulated);
  const hasMeter = $derived(live.has('multimeter'));
  /** Speeds that the stand can't take; they are left to the curve. */
  const left = $derived(live.plan.filter(({ possible }) => !possible));
  /** How much of the ripple such a meter can see at all, and that the battery makes the rest of the number. */
  const reached = $derived.by(() => {
    const hertz = ((live.rpm ?? 0) * polePairs) / 60;
    if (!bandwidthHertz || hertz < 1) return '';
    const order = Math.floor(bandwidthHertz / hertz);
    const seen =
      order >= 12
        ? 'This meter sees all orders that matter.'
        : `This meter is true to ${formatNumber(bandwidthHertz, 0)} Hz, order ${order} at this speed${order < 6 ? ': not even a sound bridge’s six humps' : ''}.`;
    return `${seen} Millivolts depend on the battery: judge by orders, not by them.`;
  });
  const sweeping = $derived(live.doing !== '');
  const figure = (value: number | null | undefined, unit: 'volts' | 'amps'): string =>
    value === undefined ? '–' : value === null ? 'OL' : formatQuantity(value, unit, unit === 'volts' ? 0.01 : 0.1);

  const figures = $derived<readonly (readonly [string, string])[]>([
    ['Rotor', live.rpm === undefined ? '–' : `${formatNumber(live.rpm, 0)} rpm`],
    ['Post', figure(live.volts, 'volts')],
    ['Clamp', figure(live.amps, 'amps')],
    ...(commands && live.words.commander
      ? ([['Command', live.words.commander.on ? `${(100 * live.words.commander.duty).toFixed(0)} %` : 'none']] as const)
      : []),
    ['Torque', live.words.stand ? `${live.words.stand.newtonMetres.toFixed(1)} Nm` : '–'],
  ]);

  $effect(() => {
    void tag;
    return live.listen();
  });
  $effect(() => {
    // On the stand the meter watches the post; whoever wants it on something else turns it.
    if (mayWrite && hasMeter) untrack(() => void live.readVolts());
  });
  $effect(() => {
    // What hands do at a real stand: clamp it, the meter at post and case.
    if (clampedAs && mayWrite)
      void tellInstrument('/api/hands', { tag, assembly: clampedAs, red: 'output', black: 'case' });
    return () => void live.leave();
  });

  /** Once it is set the keys are the bench's again; what was refused is mended where it stands. */
  async function letGoOf(field: HTMLInputElement | undefined, set: Promise<boolean>) {
    const typed = field?.value;
    // Whoever types on meanwhile keeps the field.
    if ((await set) && field?.value === typed) field?.blur();
  }

  const onTurn = (event: SubmitEvent) => {
    event.preventDefault();
    const wanted = Number(rpm.replaceAll(/[\s\u202f]/g, ''));
    if (Number.isFinite(wanted)) void letGoOf(rpmField, live.turn(wanted));
    else live.problem = `“${rpm}” is no speed: type digits, like 3000.`;
  };
  const onCommand = (event: SubmitEvent) => {
    event.preventDefault();
    const wanted = Number(percent.replace(',', '.')) / 100;
    if (wanted >= 0 && wanted <= 1) void live.command(wanted, commands?.hertz);
    else live.problem = `“${percent}” is no share of the time: type 0 to 100.`;
  };
  const onDraw = (event: SubmitEvent) => {
    event.preventDefault();
    const wanted = Number(amps.replace(',', '.'));
    if (Number.isFinite(wanted)) void letGoOf(ampsField, live.drawAmps(wanted));
    else live.problem = `“${amps}” are no amps: type digits, like 40.`;
  };

  function choose(field: HTMLInputElement) {
    field.focus();
    field.select();
  }

  function onKey(event: KeyboardEvent) {
    if (event.ctrlKey || event.altKey || event.metaKey || event.defaultPrevented) return;
    // Escape stops, wherever the hand is.
    if (event.key === 'Escape' && live.live) void live.stop();
    else if (!keysOn() || !isFree(event)) return;
    else if (event.key === 'i') live.takePoint(stand);
    else if (event.key === 's' && rpmField) choose(rpmField);
    else if (event.key === 'd' && ampsField) choose(ampsField);
    else return;
    event.preventDefault();
  }
</script>

<svelte:window onkeydown={onKey} />

<section class="sheet p-3" aria-label="Instruments">
  <LiveHead {live} {figures} off={{ name: 'Stop', act: () => live.stop() }} problem={live.problem} doing={live.doing} />
  {#if live.ripple !== undefined && live.ripple !== null}
    <p class="mt-1 text-sm">
      <span class="figure">{formatQuantity(live.ripple, 'volts')}</span> alternating, rms. {reached}
    </p>
  {/if}
  {#if live.words.multimeter && live.words.multimeter.use !== 'volts'}
    <button class="min-h-9 link text-sm" onclick={() => void live.readVolts()}
      >The meter isn’t on DC volts: set it</button
    >
  {:else if live.words.multimeter}
    <button class="min-h-9 link text-sm" onclick={() => void live.readRipple()}>Alternating volts instead</button>
  {/if}
  {#if live.has('stand')}
    <form class="mt-2 flex items-end gap-2" onsubmit={onTurn}>
      <label class="flex grow flex-col text-sm">
        <span class="flex justify-between">Turn, rpm <kbd class="figure">s</kbd></span>
        <input class="figure input h-11 w-full" inputmode="numeric" bind:value={rpm} bind:this={rpmField} />
      </label>
      <button class="btn min-h-11" disabled={!maySet}>Turn</button>
    </form>
  {/if}
  {#if commands && live.has('commander')}
    <form class="mt-1 flex items-end gap-2" onsubmit={onCommand}>
      <label class="flex grow flex-col text-sm">
        Command, %
        <input class="figure input h-11 w-full" inputmode="decimal" bind:value={percent} />
      </label>
      <button class="btn min-h-11" disabled={!maySet}>Command</button>
      <button
        type="button"
        class="btn min-h-11"
        disabled={!maySet || !live.words.commander?.on}
        onclick={() => void live.silence()}>None</button
      >
    </form>
  {/if}
  {#if live.has('load')}
    <form class="mt-1 flex items-end gap-2" onsubmit={onDraw}>
      <label class="flex grow flex-col text-sm">
        <span class="flex justify-between">Draw, A <kbd class="figure">d</kbd></span>
        <input class="figure input h-11 w-full" inputmode="decimal" bind:value={amps} bind:this={ampsField} />
      </label>
      <button class="btn min-h-11" disabled={!maySet}>Draw</button>
    </form>
    <div class="mt-1 grid grid-cols-2 gap-2">
      <button class="btn min-h-11" disabled={!maySet} onclick={() => void live.holdVolts(volts)}>
        Hold {volts} V
      </button>
      <button class="btn min-h-11" disabled={!maySet || sweeping} onclick={() => void drawMost(live, volts)}>
        The most amps
      </button>
    </div>
  {/if}
  <div class="mt-2 flex flex-wrap gap-2">
    <button class="btn min-h-11" disabled={!maySet} onclick={() => live.takePoint(stand)}>
      <span class="figure">i</span> Take the point
    </button>
    {#if live.has('stand') && live.has('load')}
      <button
        class="btn min-h-11"
        disabled={!maySet || sweeping}
        onclick={() => void sweep(live, stand, volts, school)}
      >
        All points by itself
      </button>
    {/if}
  </div>
  {#if left.length && live.limit}
    <p class="mt-1 text-sm">
      From {formatNumber(left[0]!.rpm, 0)} rpm on left to the curve: at {formatNumber(left.at(-1)!.rpm, 0)} rpm about
      {left.at(-1)!.amps.toFixed(0)} A. The stand’s {live.limit.by} ends at {live.limit.amps.toFixed(0)} A.
    </p>
  {/if}
</section>
