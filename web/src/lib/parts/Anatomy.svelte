<script lang="ts">
  import type { Assessment } from '@refectum/core/assess';
  import type { Check, Word } from '@refectum/core/checks';
  import type { Machine } from '@refectum/core/machines';
  import { planOf } from './anatomy-plan.ts';
  import type { Placed, Point } from './plan.ts';
  import Mark from './Mark.svelte';

  interface Props {
    machine: Machine;
    parts: Assessment['parts'] | undefined;
    /** The check at hand: the probes are drawn where it wants them. */
    check: Check | undefined;
    selected: string | undefined;
    onselect: (part: string | undefined) => void;
  }
  const { machine, parts, check, selected, onselect }: Props = $props();

  const plan = $derived(planOf(machine));
  /** Where the probes sit. */
  const setup = $derived(
    check?.method.kind === 'meter'
      ? check.method.setup
      : check?.method.kind === 'run'
        ? check.method.setup.probes
        : undefined,
  );
  const red = $derived(setup && plan.nodes[setup.red]);
  const black = $derived(setup && plan.nodes[setup.black]);
  /** The left one leans to the left, so that they never cross. */
  const redLeans = $derived(red && black && red.x > black.x ? 1 : -1);
  const probes = $derived([
    ...(red ? [{ name: 'red', at: red, lean: redLeans }] : []),
    ...(black ? [{ name: 'black', at: black, lean: -redLeans }] : []),
  ]);
  const drawn = $derived(plan.parts.filter((p, i) => plan.parts.findIndex((q) => q.part === p.part) === i));
  const repeated = $derived(plan.parts.filter((p, i) => plan.parts.findIndex((q) => q.part === p.part) !== i));

  const known = (part: string) => parts?.find((p) => p.id === part);
  const wordOf = (part: string): Word => known(part)?.word ?? 'not looked at';
  const markAt = (p: Placed): Point =>
    ({
      diode: { x: p.x + 18, y: p.y },
      exciter: { x: p.x, y: p.y + 17 },
      winding: { x: p.x, y: p.y },
      rotor: { x: p.x, y: p.y + 18 },
      brush: { x: p.x, y: p.y + 18 },
      rings: { x: p.x, y: p.y - 18 },
      regulator: { x: p.x, y: p.y },
      output: { x: p.x - 14, y: p.y - 14 },
      gear: { x: p.x, y: p.y },
      contacts: { x: p.x, y: p.y + 18 },
      armature: { x: p.x + 24, y: p.y + 20 },
      magnets: { x: p.x, y: p.y + 20 },
    })[p.kind];

  function onKey(event: KeyboardEvent, part: string) {
    if (event.key !== 'Enter' && event.key !== ' ') return;
    event.preventDefault();
    onselect(selected === part ? undefined : part);
  }
</script>

{#snippet symbol(p: Placed)}
  <g transform="translate({p.x} {p.y}) rotate({p.turn})" class="stroke-base-content" fill="none" stroke-width="1.6">
    {#if p.kind === 'diode' || p.kind === 'exciter'}
      {@const s = p.kind === 'diode' ? 9 : 6.5}
      <path d="M0 {-s}L{s} {s * 0.8}H{-s}Z" class="fill-base-100" />
      <path d="M{-s} {-s}H{s}" stroke-width="2.4" />
    {:else if p.kind === 'winding' || p.kind === 'rotor'}
      <path
        d="M0 -18c9 0 9 9 0 9c9 0 9 9 0 9c9 0 9 9 0 9c9 0 9 9 0 9"
        class="stroke-primary"
        stroke-width="3"
        stroke-linecap="round"
      />
    {:else if p.kind === 'brush'}
      <rect x="-5" y="-9" width="10" height="18" class="fill-base-content" />
    {:else if p.kind === 'rings'}
      <circle r="8" class="fill-base-100" />
      <circle r="3" />
    {:else if p.kind === 'regulator'}
      <rect x="-20" y="-16" width="40" height="32" class="fill-base-200" />
    {:else if p.kind === 'contacts'}
      <path d="M-8 0H8" class="stroke-base-100" stroke-width="4" />
      <path d="M-9 -6V6M9 -6V6" stroke-width="2.4" />
      <path d="M-9 -12H9" stroke-width="2.4" />
    {:else if p.kind === 'armature'}
      <circle r="20" class="fill-base-100" />
      <path d="M-8 0a8 8 0 0 1 16 0" class="stroke-primary" stroke-width="3" />
    {:else if p.kind === 'magnets'}
      <path d="M-12 -8H12V8H-12Z M0 -8V8" class="fill-base-200" />
    {:else if p.kind === 'output'}
      <rect x="-4" y="-7" width="8" height="14" class="fill-base-100" />
    {:else}
      <rect x="-15" y="-13" width="30" height="26" rx="3" class="fill-base-200" />
    {/if}
  </g>
  {#if p.kind === 'gear'}
    <text x={p.x} y={p.y + 30} text-anchor="middle" class="fill-base-content" font-size="13">{p.label}</text>
  {:else if p.label && p.kind !== 'winding'}
    <text
      x={p.x - (p.kind === 'diode' ? 13 : 9)}
      y={p.y + 4}
      text-anchor="end"
      class="fill-base-content"
      font-size="11"
    >
      {p.label}
    </text>
  {/if}
{/snippet}

<svg
  viewBox="0 {plan.size.top} {plan.size.width} {plan.size.bottom - plan.size.top}"
  class="w-full"
  role="group"
  aria-label="Circuit of this unit"
>
  <g class="stroke-secondary" fill="none" stroke-width="1.3">
    {#each plan.wires as wire (wire)}<path d={wire} />{/each}
  </g>
  {#each plan.dots as dot, i (i)}<circle cx={dot.x} cy={dot.y} r="2.6" class="fill-base-content" />{/each}
  <g font-size="13" class="fill-base-content">
    {#each plan.captions as { text, x, y, anchor } (text)}<text {x} {y} text-anchor={anchor}>{text}</text>{/each}
  </g>
  {#each repeated as p, i (i)}{@render symbol(p)}{/each}
  {#each drawn as p (p.part)}
    <g
      role="button"
      tabindex="0"
      aria-pressed={selected === p.part}
      aria-label="{known(p.part)?.name ?? p.part}: {wordOf(p.part)}"
      class="cursor-pointer"
      onclick={() => onselect(selected === p.part ? undefined : p.part)}
      onkeydown={(event) => onKey(event, p.part)}
    >
      <rect x={p.x - 21} y={p.y - 22} width="42" height="44" fill="transparent" />
      {#if selected === p.part}
        <rect
          x={p.x - 21}
          y={p.y - 22}
          width="42"
          height="44"
          rx="4"
          class="stroke-primary"
          fill="none"
          stroke-width="2"
          stroke-dasharray="5 3"
        />
      {/if}
      {@render symbol(p)}
      <Mark word={wordOf(p.part)} at={markAt(p)} size={14} />
    </g>
  {/each}
  {#each probes as { name, at, lean } (name)}
    <g transform="translate({at.x} {at.y})" aria-hidden="true">
      <path
        d="M0 0 L{lean * 7 - 3} 15 L{lean * 17 - 4} 42 L{lean * 17 + 4} 42 L{lean * 7 + 3} 15 Z"
        transform={at.fromAbove && 'scale(1 -1)'}
        class={name === 'red' ? 'fill-error stroke-base-100' : 'fill-base-content stroke-base-100'}
        stroke-width="1.2"
      />
      <circle r="4" class={name === 'red' ? 'fill-error stroke-base-100' : 'fill-base-content stroke-base-100'} />
      <text
        x={lean * 17}
        y={at.fromAbove ? -46 : 54}
        text-anchor="middle"
        font-size="11"
        font-weight="600"
        paint-order="stroke"
        stroke-width="3"
        class="fill-base-content stroke-base-100">{name}</text
      >
    </g>
  {/each}
</svg>
