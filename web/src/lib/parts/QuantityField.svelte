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

  /** What was typed, and the value that stood then: another one since comes from elsewhere, and is shown instead. */
  let entry = $state.raw<{ readonly text: string; readonly value: number | undefined; readonly problem: string }>();
  const typed = $derived(entry?.value === value ? entry : undefined);
  const shown = $derived(typed?.text ?? (value === undefined ? '' : String(value)));
  const understood = $derived(value !== undefined && typed?.text && !typed.problem ? formatQuantity(value, unit) : '');
  const told = $derived(typed?.problem || errors?.[0] || '');

  function onInput(text: string) {
    const read = parseQuantity(text, unit);
    const isUnknown = text.trim() === '' && optional;
    if (isUnknown || read.kind === 'value') {
      const given = isUnknown || read.kind !== 'value' ? undefined : read.value;
      entry = { text, value: given, problem: '' };
      onvalue(given);
    } else entry = { text, value, problem: read.kind === 'refused' ? read.message : 'Over-range is no value here.' };
  }
  /** What can't be read isn't sent as what stood there before. */
  const refuse = (field: HTMLInputElement) => field.setCustomValidity(typed?.problem ?? '');
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
    oninvalid={(event) => event.currentTarget.closest('details')?.setAttribute('open', '')}
    {@attach refuse}
  />
  <p id="{id}-told" class="min-h-5 text-sm" class:text-error={told}>
    {told || (understood === shown ? '' : understood)}
  </p>
</div>
