<script lang="ts">
  import { enhance } from '$app/forms';
  import { instrumentKinds, type ShopInstrument } from '$lib/instruments.ts';
  import type { ShopMeter } from '$lib/job.ts';
  import { sends } from '$lib/sends.ts';
  import Field from './Field.svelte';

  interface Props {
    instruments: readonly ShopInstrument[];
    meters: readonly ShopMeter[];
    mayWrite: boolean;
    /** What came back refused: texts as typed, and what is wrong by field. */
    refused:
      { readonly entry: Record<string, string>; readonly problems: Readonly<Record<string, string>> } | undefined;
    /** What the form's last success says. */
    said: string | undefined;
  }
  const { instruments, meters, mayWrite, refused, said }: Props = $props();

  type Draft = Record<'id' | 'name' | 'kind' | 'host' | 'port' | 'meter', string>;
  let editing = $state<Draft>();
  $effect(() => {
    if (refused) editing = { ...(refused.entry as Draft) };
    else if (said) editing = undefined;
  });
  const problems = $derived(refused?.entry.id === editing?.id ? (refused?.problems ?? {}) : {});

  /** Why the server took nothing. */
  let away = $state('');
  const told = (why: string) => void (away = why);

  const errorsOf = (name: string) => (problems[name] ? [problems[name]] : undefined);

  const fresh = (): Draft => ({
    id: crypto.randomUUID(),
    name: '',
    kind: 'multimeter',
    host: '',
    port: '5025',
    meter: meters[0]?.known.id ?? '',
  });
  const draftOf = ({ id, name, kind, host, port, meter }: ShopInstrument): Draft => ({
    id,
    name,
    kind,
    host,
    port: String(port),
    meter: meter ?? '',
  });
</script>

{#snippet notTaken()}
  {@const why = away || problems.form}
  {#if why}<p role="alert" class="border-l-4 border-error px-3 py-1">{why}</p>{/if}
{/snippet}

<section aria-label="Instruments at a port" class="mt-6">
  <h2 class="text-2xl font-semibold">Instruments at a port</h2>
  <p class="mb-2">Instruments that speak SCPI over the network. The server speaks with these addresses and no other.</p>
  {#if said}<p role="status" class="mb-2 border-l-4 border-success px-3 py-1">{said}</p>{/if}
  {#if instruments.length}
    <ul class="sheet">
      {#each instruments as one (one.id)}
        <li class="flex flex-wrap items-center gap-3 border-b border-base-300 px-3 py-2 last:border-0">
          <span class="min-w-60 grow">
            <strong>{one.name}</strong>
            <span class="block text-sm">
              {instrumentKinds[one.kind]}{one.meter
                ? `, reads as ${meters.find(({ known }) => known.id === one.meter)?.known.name ?? one.meter}`
                : ''}
            </span>
          </span>
          <span class="figure text-sm">{one.host}:{one.port}</span>
          {#if mayWrite}
            <button class="btn btn-sm" onclick={() => (editing = draftOf(one))}>Change</button>
            <form method="POST" action="?/forget" use:enhance={sends(told)}>
              <input type="hidden" name="id" value={one.id} />
              <button class="btn btn-sm" aria-label="Forget {one.name}">Forget</button>
            </form>
          {/if}
        </li>
      {/each}
    </ul>
  {:else}
    <p>None yet{mayWrite ? '' : '; a lead enters them'}.</p>
  {/if}
  {#if !editing}{@render notTaken()}{/if}
  {#if mayWrite && !editing}<button class="btn mt-3" onclick={() => (editing = fresh())}>Enter an instrument</button
    >{/if}
  {#if editing}
    <form
      method="POST"
      action="?/instrument"
      use:enhance={sends(told)}
      class="sheet mt-3 flex flex-col gap-3 p-4"
      aria-label="Instrument"
    >
      <input type="hidden" name="id" value={editing.id} />
      <div class="grid gap-3 md:grid-cols-2">
        <Field id="instrument-name" label="Name in the shop" errors={errorsOf('name')}>
          {#snippet children(field)}
            <input {...field} name="name" class="input w-full" autocomplete="off" bind:value={editing!.name} />
          {/snippet}
        </Field>
        <label class="flex flex-col">
          What it is
          <select name="kind" class="select w-full" bind:value={editing.kind}>
            {#each Object.entries(instrumentKinds) as [kind, name] (kind)}<option value={kind}>{name}</option>{/each}
          </select>
        </label>
        <Field id="instrument-host" label="Name or address" errors={errorsOf('host')}>
          {#snippet children(field)}
            <input {...field} name="host" class="input w-full" autocomplete="off" bind:value={editing!.host} />
          {/snippet}
        </Field>
        <Field id="instrument-port" label="Port" errors={errorsOf('port')}>
          {#snippet children(field)}
            <input {...field} name="port" class="input w-full" autocomplete="off" bind:value={editing!.port} />
          {/snippet}
        </Field>
        {#if editing.kind === 'multimeter'}
          <Field id="instrument-meter" label="Accuracy as of" errors={errorsOf('meter')}>
            {#snippet children(field)}
              <select {...field} name="meter" class="select w-full" bind:value={editing!.meter}>
                {#each meters.filter(({ retired }) => !retired) as { known } (known.id)}
                  <option value={known.id}>{known.name}</option>
                {/each}
              </select>
            {/snippet}
          </Field>
        {/if}
      </div>
      {@render notTaken()}
      <p class="flex gap-3">
        <button class="btn btn-primary">Allow it</button>
        <button type="button" class="btn" onclick={() => (editing = undefined)}>Leave it</button>
      </p>
    </form>
  {/if}
</section>
