<script lang="ts">
  import type { Ruler } from '@refectum/core/assess';
  import { formatQuantity } from '@refectum/core/quantity';

  interface Props {
    ruler: Ruler;
    /** A value that lies on it: typed just now, or taken. */
    value: number | undefined;
    over: boolean;
  }
  const { ruler, value, over }: Props = $props();

  const left = 8;
  const right = 560;
  const overX = 610;
  /** A tick's label nearer to the left end would be cut off. */
  const labelHalf = 24;
  const rowHeight = 22;
  const top = 40;

  /** Low ohms and everything else are drawn evenly; ohms over decades by their logarithm. */
  const wide = $derived(ruler.unit === 'ohms' && ruler.to > 100);
  const place = (v: number): number => {
    const clamped = Math.min(Math.max(v, ruler.from), ruler.to);
    const share = wide
      ? Math.log10(1 + clamped) / Math.log10(1 + ruler.to)
      : (clamped - ruler.from) / (ruler.to - ruler.from);
    return left + share * (right - left);
  };
  const ticks = $derived(wide ? decades(ruler.to) : even(ruler.from, ruler.to));
  const rows = $derived([
    ...ruler.sound.map((band) => ({ ...band, sound: true })),
    ...ruler.suspects.map((band) => ({ ...band, sound: false })),
  ]);
  const height = $derived(top + rows.length * rowHeight + 8);
  const hasOver = $derived(ruler.top !== undefined);

  function even(from: number, to: number): number[] {
    const raw = (to - from) / 6;
    const power = 10 ** Math.floor(Math.log10(raw));
    const step = [1, 2, 5, 10].map((m) => m * power).find((s) => s >= raw)!;
    const first = Math.ceil(from / step);
    return Array.from({ length: Math.floor(to / step) - first + 1 }, (_, i) => (first + i) * step);
  }
  function decades(to: number): number[] {
    const count = Math.floor(Math.log10(to));
    const every = count > 6 ? 2 : 1;
    return [0, ...Array.from({ length: count + 1 }, (_, i) => 10 ** i).filter((_, i) => i % every === 0)];
  }
  const tick = (v: number) => (v === 0 ? '0' : formatQuantity(v, ruler.unit));
</script>

<figure>
  <svg
    viewBox="0 0 660 {height}"
    class="w-full"
    role="img"
    aria-label="Where this reading would lie: sound {ruler.expected}"
  >
    <line x1={left} x2={right} y1={top - 6} y2={top - 6} class="stroke-base-content" stroke-width="1.5" />
    {#each ticks as t (t)}
      <line x1={place(t)} x2={place(t)} y1={top - 12} y2={top - 6} class="stroke-base-content" stroke-width="1.5" />
      <text
        x={place(t)}
        y={top - 17}
        text-anchor={place(t) < left + labelHalf ? 'start' : 'middle'}
        font-size="13"
        class="figure fill-base-content">{tick(t)}</text
      >
    {/each}
    {#if hasOver}
      <text x={overX + 18} y={top - 17} text-anchor="middle" font-size="13" class="figure fill-base-content">OL</text>
      <rect x={overX} y={top - 10} width="36" height={height - top + 4} class="fill-none stroke-base-300" />
    {/if}
    {#each rows as row, i (i)}
      {@const y = top + i * rowHeight}
      {@const x = row.over ? overX + 3 : place(row.low)}
      {@const w = row.over ? 30 : Math.max(place(row.high) - place(row.low), 5)}
      {#if row.sound}
        <rect {x} {y} width={w} height="16" class="fill-success" />
      {:else}
        <rect {x} {y} width={w} height="16" class="fill-base-100 stroke-primary" stroke-width="1.5" />
        <path d="M{x} {y + 12}L{Math.min(x + 12, x + w)} {y + 4}" class="stroke-primary" stroke-width="1.5" />
      {/if}
      {@const after = x + w + 6}
      {@const fits = after + row.name.length * 7 < (row.over ? 0 : overX - 4)}
      <!-- Where neither side has room the name stands on its band. -->
      {@const before = x - 6 > row.name.length * 7}
      <text
        x={fits ? after : before ? x - 6 : x + 18}
        y={y + 13}
        text-anchor={!fits && before ? 'end' : 'start'}
        font-size="13"
        paint-order="stroke"
        stroke-width="4"
        class="fill-base-content stroke-base-100">{row.name}</text
      >
    {/each}
    {#if value !== undefined || over}
      {@const x = over ? overX + 18 : place(value!)}
      <line x1={x} x2={x} y1={top - 8} y2={height} class="stroke-base-content" stroke-width="2.5" />
      <path d="M{x - 7} {top - 16}h14l-7 11z" class="fill-base-content" />
    {/if}
  </svg>
  {#if !ruler.canTell}
    <figcaption class="mt-1 border-l-4 border-info px-3 py-1">
      <strong>This meter can’t tell</strong> a sound unit from a faulty one here. What would: {ruler.instead.join(
        '; or ',
      )}.
    </figcaption>
  {/if}
</figure>
