<script lang="ts">
  import { formatQuantity, parseQuantity, type Unit, units } from '@refectum/core/quantity';

  interface Props {
    id: string;
    label: string;
    unit: Unit;
    value: number | undefined;
    /** Empty is an answer: unknown. */
    optional?: boolean;
    errors?: readonly string[] | undefined;
    onvalue: (value: number | undefined) => void;
  }
  const { id, label, unit, value, optional = false, errors, onvalue }: Props = $props();

  let typed = $state<string>();
  let problem = $state('');
  const shown = $derived(typed ?? (value === undefined ? '' : String(value)));
  const understood = $derived(value !== undefined && typed && !problem ? formatQuantity(value, unit) : '');
  const told = $derived(problem || errors?.[0] || '');

  function onInput(text: string) {
    typed = text;
    problem = '';
    if (text.trim() === '' && optional) return onvalue(undefined);
    const read = parseQuantity(text, unit);
    if (read.kind === 'value') return onvalue(read.value);
    problem = read.kind === 'refused' ? read.message : 'Over-range is no value here.';
  }
</script>

<div class="flex flex-col">
  <label for={id}>{label}{units[unit].symbol && `, ${units[unit].symbol}`}</label>
  <input
    {id}
    type="text"
    inputmode="decimal"
    autocomplete="off"
    class="figure input w-full"
    class:input-error={told}
    value={shown}
    oninput={(event) => onInput(event.currentTarget.value)}
    aria-invalid={told ? 'true' : undefined}
    aria-describedby="{id}-told"
  />
  <p id="{id}-told" class="min-h-5 text-sm" class:text-error={told}>
    {told || (understood === shown ? '' : understood)}
  </p>
</div>
