<script lang="ts">
  import { contradict, inHouseOrder, type Keeps, keeps, limitsFor, schools, unbalance } from '@refectum/core/limits';
  import { formatQuantity, parseQuantity } from '@refectum/core/quantity';
  import { limitOf, type ShelfModel } from '@refectum/core/shelf';
  import type { Check } from '@refectum/core/checks';
  import { netValue, nullOf, siblingsOf, sigmaOf } from '$lib/limits.ts';
  import type { Bench } from '$lib/live/bench.svelte.ts';
  import type { HouseRules } from '$lib/rules.ts';

  interface Props {
    bench: Bench;
    check: Check;
    shelved: ShelfModel | undefined;
    /** What the check showed on known-good units of the model. */
    own: readonly number[];
    rules: HouseRules;
  }
  const { bench, check, shelved, own, rules }: Props = $props();

  const meter = $derived(bench.meter);
  const published = $derived(shelved && limitOf(shelved, check.id));
  const siblings = $derived(meter ? siblingsOf(check, bench.checks, bench.standing, meter.id) : []);
  const limits = $derived(inHouseOrder(limitsFor(check, { published, siblings, own }), rules.limits));
  const typed = $derived(bench.entry ? parseQuantity(bench.entry, check.unit) : undefined);
  const value = $derived.by(() => {
    return typed?.kind === 'value' && meter
      ? netValue(check, typed.value, nullOf(bench.standing, meter.id))
      : undefined;
  });
  const words = $derived(
    value === undefined || !meter ? [] : limits.map((limit) => keeps(limit, value, sigmaOf(check, value, meter))),
  );
  const said: Record<Keeps, string> = { inside: 'inside', outside: 'outside', unsure: 'this meter can’t tell' };
  const shown = (x: number) => formatQuantity(x, check.unit);
  const band = (least: number | undefined, most: number | undefined): string =>
    least === undefined
      ? `at most ${shown(most!)}`
      : most === undefined
        ? `at least ${shown(least)}`
        : `${shown(Math.max(least, 0))} to ${shown(most)}`;
</script>

{#if limits.length}
  <table class="mt-2 w-full text-sm" aria-label="Limits by school">
    <tbody>
      {#each limits as { school, least, most, source }, i (school)}
        <tr class="border-t border-base-300" class:font-semibold={i === 0}>
          <th scope="row" class="py-1 pr-3 text-left font-normal">{schools[school]}</th>
          <td class="figure py-1 pr-3 whitespace-nowrap">{band(least, most)}</td>
          <td class="py-1 pr-3 font-normal">{source}</td>
          <td class="py-1 text-right">{words[i] ? said[words[i]] : i === 0 ? 'leads here' : ''}</td>
        </tr>
      {/each}
    </tbody>
  </table>
  {#if value !== undefined && limits.some(({ school }) => school === 'siblings')}
    <p class="mt-1 text-sm">
      All {siblings.length + 1} together: {(100 * unbalance([...siblings, value])).toFixed(1)} % is the largest deviation
      from their mean.
    </p>
  {/if}
  {#if typed?.kind === 'value' && value === undefined}
    <p class="mt-1 text-sm">The leads are still in it: hold them together first, then it can be held against these.</p>
  {/if}
  {#if contradict(words)}
    <p class="mt-1 border-l-4 border-warning px-3 py-1">
      These limits contradict each other on this reading. By the house rules “{schools[limits[0]!.school]}” leads.
    </p>
  {/if}
{/if}
