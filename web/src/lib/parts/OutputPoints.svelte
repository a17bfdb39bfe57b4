<script lang="ts">
  import { type JudgedReading, outcomeText } from '@refectum/core/assess';
  import type { OutputPoint } from '@refectum/core/curves';
  import type { Subject } from '@refectum/core/machines';
  import { driveWatts, standLimit, type StandProfile } from '@refectum/core/handbook';
  import { formatNumber, formatQuantity } from '@refectum/core/quantity';
  import Mark from './Mark.svelte';
  import RotorSpeed from './RotorSpeed.svelte';
  import { type PointField, pointFields, type RunStand } from '$lib/live/run-stand.svelte.ts';
  import type { OutputSchool } from '$lib/rules.ts';

  interface Props {
    stand: RunStand;
    volts: number;
    /** How this shop reads an output. */
    school: OutputSchool;
    polePairs: number;
    ratedAmps: number;
    profile: StandProfile;
    subject: Subject;
    /** What the belief says of the points that it counts. */
    judged: readonly JudgedReading[];
  }
  const { stand, volts, school, polePairs, ratedAmps, profile, subject, judged }: Props = $props();
  /** What is said of a point; another at the same speed and volts is another reading of the same check. */
  const judgedAt = ({ amps, ...at }: OutputPoint) => {
    const made = subject.outputCheck?.(at);
    const text = made && outcomeText(made, { kind: 'value', value: amps });
    return judged.find(({ check, shown }) => check === made?.id && shown === text);
  };
  let speed = $state<HTMLInputElement>();

  const labels: Record<PointField, string> = {
    rpm: 'Rotor, rpm',
    volts: 'Post, V',
    amps: 'Clamp, A',
    celsius: 'Windings, °C',
  };
  const limit = $derived(standLimit(profile, volts));

  function onAdd(event: SubmitEvent) {
    event.preventDefault();
    if (stand.addPoint()) speed?.focus();
  }
</script>

<section class="sheet p-3" aria-label="Points of the output">
  <h2 class="text-xl font-semibold">Output, point by point</h2>
  <p class="text-sm">
    Its own regulator, load drawn until {school === 'most'
      ? 'the amps climb no more; note the volts too'
      : `the post holds ${volts} V`}. Ten seconds, then cool.
  </p>
  <form class="mt-2 grid grid-cols-2 gap-x-2" onsubmit={onAdd}>
    {#each pointFields as field (field)}
      <div class="flex flex-col">
        <label class="text-sm" for="point-{field}">{labels[field]}</label>
        {#if field === 'rpm'}
          <input
            id="point-rpm"
            bind:this={speed}
            class="figure input"
            inputmode="numeric"
            autocomplete="off"
            bind:value={stand.typed.rpm}
            aria-invalid={stand.problems.rpm ? 'true' : undefined}
            aria-describedby="point-rpm-told"
          />
        {:else}
          <input
            id="point-{field}"
            class="figure input"
            inputmode="decimal"
            autocomplete="off"
            bind:value={stand.typed[field]}
            aria-invalid={stand.problems[field] ? 'true' : undefined}
            aria-describedby="point-{field}-told"
          />
        {/if}
        <p id="point-{field}-told" class="min-h-5 text-sm text-error">{stand.problems[field] ?? ''}</p>
      </div>
    {/each}
    <button class="btn col-span-2 min-h-11 btn-primary" disabled={!stand.mayWrite}>Add the point</button>
  </form>
  <RotorSpeed
    {polePairs}
    onuse={(rpm) => {
      stand.typed.rpm = String(rpm);
      speed?.focus();
    }}
  />
  {#if stand.points.length}
    <table class="figure mt-2 w-full text-right text-sm" aria-label="Points that stand">
      <thead
        ><tr class="font-sans"
          ><th scope="col">rpm</th><th scope="col">V</th><th scope="col">A</th><th scope="col">°C</th><td></td><td
          ></td></tr
        ></thead
      >
      <tbody>
        {#each stand.points as { id, rpm, volts: held, amps, celsius } (id)}
          {@const said = judgedAt({ rpm, volts: held, amps, celsius })}
          <tr class="border-t border-base-300">
            <td>{formatNumber(rpm, 0)}</td><td>{held.toFixed(1)}</td><td>{amps.toFixed(1)}</td><td>{celsius ?? '–'}</td>
            <td class="pl-1 font-sans">
              {#if said}<span title="expected {said.expected}"
                  ><Mark word={said.word} /> <span class="sr-only">{said.word}, expected {said.expected}</span></span
                >{/if}
            </td>
            <td
              ><button
                class="min-h-9 link px-2 font-sans"
                onclick={() => void stand.strike(id)}
                disabled={!stand.mayWrite}
                aria-label="Strike out {rpm} rpm">strike</button
              ></td
            >
          </tr>
        {/each}
      </tbody>
    </table>
    {#each judged.filter(({ repeat }) => repeat) as { name, repeat }, i (i)}
      <p class="mt-1 border-l-4 border-warning pl-2 text-sm">{name}: {repeat}</p>
    {/each}
  {/if}
  {#if limit}
    <p class="mt-2 text-sm" class:text-error={limit.amps < ratedAmps}>
      This stand’s {limit.by} ends at about {formatQuantity(limit.amps, 'amps', 1)} at {volts} V{limit.amps < ratedAmps
        ? `; the rated ${ratedAmps} A need ${(driveWatts(volts, ratedAmps) / 1000).toFixed(1)} kW. Take points at lower speed or load, the curve says the rest.`
        : ', enough for the rated output.'}
    </p>
  {:else}
    <p class="mt-2 text-sm">
      What the stand can pull isn’t said yet: a lead says it under <a class="link" href="/shop">Shop</a>.
    </p>
  {/if}
</section>
