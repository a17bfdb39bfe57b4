<script lang="ts">
  import type { Fact, FactValue, FamilyId, Machine } from '@refectum/core/machines';
  import { factValue, families, familyBy } from '@refectum/core/machines';
  import Field from './Field.svelte';
  import QuantityField from './QuantityField.svelte';

  interface Props {
    machine: Machine;
    errors: Readonly<Record<string, readonly string[] | undefined>> | undefined;
    /** Whether figures that the plate doesn't say were looked at; else they follow the plate. */
    touched: boolean;
    onchange: (machine: Machine, touched: boolean) => void;
  }
  const { machine, errors, touched, onchange }: Props = $props();
  const family = $derived(familyBy(machine.family));
  const plain = $derived(family.facts.filter(({ aside }) => !aside));
  const asides = $derived(family.facts.filter(({ aside }) => aside));
  const valueOf = (fact: Fact) => factValue(machine, fact);

  /** What the plate doesn't say follows it, unless it was typed. */
  function set({ id, aside }: Fact, value: FactValue | undefined) {
    const next = { ...machine, [id]: value } as Machine;
    if (aside || touched) return onchange(next, touched || aside === true);
    const size = (next as unknown as Record<string, number>)[family.size.fact]!;
    const usual = family.usual(next.ratedVolts, size, next) as unknown as Record<string, FactValue | undefined>;
    onchange({ ...next, ...Object.fromEntries(asides.map((fact) => [fact.id, usual[fact.id]])) } as Machine, false);
  }

  const become = (id: FamilyId) => onchange(familyBy(id).usual(12, familyBy(id).size.usual), false);
</script>

{#snippet field(fact: Fact)}
  {@const { id, name, kind, optional } = fact}
  {#if 'choices' in kind}
    <Field {id} label={name} errors={errors?.[id]}>
      {#snippet children(a)}
        <select
          {...a}
          class="select w-full"
          value={String(valueOf(fact))}
          onchange={(e) => {
            const chosen = e.currentTarget.value;
            set(fact, kind.choices.find(({ value }) => String(value) === chosen)!.value);
          }}
        >
          {#each kind.choices as { value, name: said } (said)}<option value={String(value)}>{said}</option>{/each}
        </select>
      {/snippet}
    </Field>
  {:else if 'unit' in kind}
    <QuantityField
      {id}
      label={name}
      unit={kind.unit}
      value={valueOf(fact) as number | undefined}
      optional={optional === true}
      errors={errors?.[id]}
      onvalue={(value) => set(fact, value)}
    />
  {/if}
{/snippet}

<div class="col-span-2">
  <Field id="family" label="What it is" errors={errors?.family}>
    {#snippet children(a)}
      <select
        {...a}
        class="select w-full"
        value={machine.family}
        onchange={(e) => become(e.currentTarget.value as FamilyId)}
      >
        {#each Object.entries(families) as [id, { name }] (id)}<option value={id}>{name}</option>{/each}
      </select>
    {/snippet}
  </Field>
</div>
<!-- What was typed of another family is another figure. -->
{#key machine.family}
  {#each plain as fact (fact.id)}{@render field(fact)}{/each}
  <details class="order-last col-span-2">
    <summary class="min-h-11 cursor-pointer py-2">Figures of the model, at 20 °C</summary>
    <div class="grid grid-cols-2 gap-x-4">
      {#each asides as fact (fact.id)}{@render field(fact)}{/each}
    </div>
  </details>
{/key}
