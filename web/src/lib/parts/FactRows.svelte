<script lang="ts">
  import type { ShelfFact } from '@refectum/core/shelf';
  import { units } from '@refectum/core/quantity';
  import type { Cells, Problems } from '$lib/shelf.ts';

  interface Props {
    /** Shown whether or not they are given. */
    always: readonly ShelfFact[];
    /** Shown once they are given. */
    addable: readonly ShelfFact[];
    cells: Cells;
    problems: Problems;
    /** Path of the facts, as the problems have it. */
    at: string;
    editable: boolean;
    /** What a new value's source is, unless another is typed. */
    source: string;
    onchange: (cells: Cells) => void;
  }
  const { always, addable, cells, problems, at, editable, source, onchange }: Props = $props();
  /** Asked for, though nothing is typed yet. */
  let asked = $state<readonly string[]>([]);
  const shown = $derived([
    ...always.filter(({ id }) => editable || cells[id]),
    ...addable.filter(({ id }) => cells[id] || asked.includes(id)),
  ]);
  const left = $derived(addable.filter((fact) => !shown.includes(fact)));
  const idOf = (fact: ShelfFact, what: string) => `${at}${fact.id}-${what}`.replaceAll(/[^\w-]/g, '-');
  const symbol = ({ kind }: ShelfFact) => ('unit' in kind ? `, ${units[kind.unit].symbol}` : '');

  function type(id: string, text: string) {
    onchange({ ...cells, [id]: { text, source: cells[id]?.source || (text ? source : '') } });
  }
  const cite = (id: string, cited: string) =>
    onchange({ ...cells, [id]: { text: cells[id]?.text ?? '', source: cited } });
</script>

{#each shown as fact (fact.id)}
  {@const problem = problems[`${at}facts.${fact.id}`]}
  {@const cell = cells[fact.id]}
  <tr class="align-top">
    <th scope="row" class="py-1 pr-3 text-left font-normal">{fact.name}{symbol(fact)}</th>
    {#if editable}
      <td class="py-0.5 pr-2">
        {#if 'choices' in fact.kind}
          <select
            id={idOf(fact, 'value')}
            class="select h-9 w-44"
            aria-label={fact.name}
            aria-invalid={problem ? 'true' : undefined}
            aria-describedby={idOf(fact, 'told')}
            value={cell?.text ?? ''}
            onchange={(event) => type(fact.id, event.currentTarget.value)}
          >
            <option value="">not given</option>
            {#each fact.kind.choices as { name } (name)}<option value={name}>{name}</option>{/each}
          </select>
        {:else}
          <input
            id={idOf(fact, 'value')}
            class="figure input h-9 w-44"
            aria-label={fact.name}
            aria-invalid={problem ? 'true' : undefined}
            aria-describedby={idOf(fact, 'told')}
            autocomplete="off"
            value={cell?.text ?? ''}
            oninput={(event) => type(fact.id, event.currentTarget.value)}
          />
        {/if}
      </td>
      <td class="py-0.5">
        <input
          class="input h-9 w-full min-w-32"
          aria-label="Source of {fact.name}"
          aria-describedby={idOf(fact, 'told')}
          autocomplete="off"
          list="sources"
          maxlength="160"
          value={cell?.source ?? ''}
          oninput={(event) => cite(fact.id, event.currentTarget.value)}
        />
        <p id={idOf(fact, 'told')} role="alert" class="text-sm text-error" class:hidden={!problem}>{problem ?? ''}</p>
      </td>
    {:else}
      <td class="figure py-1 pr-3">{cell?.text}</td>
      <td class="py-1">{cell?.source}</td>
    {/if}
  </tr>
{/each}
{#if editable && left.length}
  <tr>
    <td colspan="3" class="py-0.5">
      <select
        class="select h-9 w-72"
        aria-label="Add a value"
        value=""
        onchange={(event) => {
          asked = [...asked, event.currentTarget.value];
          event.currentTarget.value = '';
        }}
      >
        <option value="">Add…</option>
        {#each left as { id, name } (id)}<option value={id}>{name}</option>{/each}
      </select>
    </td>
  </tr>
{/if}
