<script lang="ts">
  import { type FamilyId, familyBy, familyOf, type Machine } from '@refectum/core/machines';
  import { untrack } from 'svelte';
  import { superForm } from 'sveltekit-superforms';
  import { yupClient } from 'sveltekit-superforms/adapters';
  import Field from '$lib/parts/Field.svelte';
  import MachineFields from '$lib/parts/MachineFields.svelte';
  import { dayOf } from '$lib/dates.ts';
  import { directions, type KnownModel, pulleys } from '$lib/job.ts';
  import { notTaken } from '$lib/sends.ts';
  import { known } from '$lib/live/known.ts';
  import { checkInSchema } from '$lib/schemas.ts';
  import { trapAbouts } from '@refectum/core/shelf';
  import { courseNames, type CourseId } from '@refectum/core/verdict';

  const { data } = $props();
  const { form, errors, enhance, message, submitting } = superForm(
    untrack(() => data.form),
    {
      dataType: 'json',
      validators: yupClient(checkInSchema),
      resetForm: false,
      onError: ({ result }) => void ($message = notTaken(result)),
    },
  );
  const complaints = $derived(familyOf($form.machine).complaints);

  /** What the plate doesn't say follows it, unless it was typed. */
  let touched = $state(false);
  let customers = $state.raw<readonly string[]>([]);
  let models = $state.raw<readonly KnownModel[]>([]);
  /** The model that the build was taken from. */
  let taken = $state.raw<KnownModel>();
  let variant = $state('');
  let earlier = $state.raw<readonly { tag: number; at: string; course?: CourseId; reason?: string }[]>([]);

  async function onCustomer() {
    customers = (await known('customer', () => $form.customer)) ?? customers;
  }
  /** A model that was here before is filled in as it was built then. */
  async function onModel() {
    const found = await known<KnownModel>('model', () => $form.model);
    if (!found) return;
    models = found;
    const same = models.find(({ model }) => model.toLowerCase() === $form.model.trim().toLowerCase());
    // What was typed into it since stays.
    if (same?.model === taken?.model) return;
    taken = same;
    variant = '';
    // One that isn't known after one that was: it was another model's build.
    $form.machine = same ? { ...same.machine } : usualOf($form.machine.family);
    const read = same?.plate ?? { direction: '', pulley: '', connector: '' };
    $form.plate = { ...$form.plate, ...read, cameWith: $form.plate.cameWith };
    touched = same !== undefined;
  }
  /** What isn't known of a variant is as with the model. */
  function onVariant(name: string) {
    variant = name;
    const machine = taken?.variants.find((one) => one.name === name)?.machine ?? taken?.machine;
    if (machine) $form.machine = { ...machine };
  }
  async function onSerial() {
    earlier = (await known('serial', () => $form.serial)) ?? earlier;
  }

  /** What is wrong between the facts of a machine. */
  const machineProblem = $derived(($errors.machine as { _errors?: readonly string[] } | undefined)?._errors?.[0]);
  const usualOf = (id: FamilyId): Machine => familyBy(id).usual(12, familyBy(id).size.usual);
</script>

<svelte:head><title>Check in · Refectum</title></svelte:head>

<section class="mx-auto w-full max-w-5xl p-4">
  <div class="mb-3 flex items-baseline justify-between">
    <h1 class="text-2xl font-semibold">Check a unit in</h1>
    <a class="link" href="/check-in/many">Many at once</a>
  </div>
  {#if $message}<p role="alert" class="mb-3 border-l-4 border-error px-3 py-2 text-lg">{$message}</p>{/if}
  <form method="POST" use:enhance class="grid gap-4 md:grid-cols-2">
    <fieldset class="sheet grid grid-cols-2 content-start gap-x-4 p-4">
      <legend class="px-1 text-lg font-semibold">The unit and its story</legend>
      <div class="col-span-2">
        <Field id="customer" label="Customer" errors={$errors.customer}>
          {#snippet children(a)}<input
              {...a}
              class="input w-full"
              type="text"
              autocomplete="off"
              autofocus
              list="customers"
              oninput={onCustomer}
              bind:value={$form.customer}
            />{/snippet}
        </Field>
        <datalist id="customers"
          >{#each customers as name (name)}<option value={name}></option>{/each}</datalist
        >
      </div>
      <Field id="model" label="Model, from the plate" errors={$errors.model}>
        {#snippet children(a)}<input
            {...a}
            class="input w-full"
            type="text"
            autocomplete="off"
            list="models"
            oninput={onModel}
            bind:value={$form.model}
          />{/snippet}
      </Field>
      <datalist id="models"
        >{#each models as { model } (model)}<option value={model}></option>{/each}</datalist
      >
      <Field id="serial" label="Serial number" errors={$errors.serial}>
        {#snippet children(a)}<input
            {...a}
            class="input w-full"
            type="text"
            autocomplete="off"
            onchange={onSerial}
            bind:value={$form.serial}
          />{/snippet}
      </Field>
      <Field id="complaint" label="Complaint" errors={$errors.complaint}>
        {#snippet children(a)}
          <select {...a} class="select w-full" bind:value={$form.complaint}>
            <option value="" disabled>choose</option>
            {#each complaints as complaint (complaint.id)}<option value={complaint.id}>{complaint.name}</option>{/each}
          </select>
        {/snippet}
      </Field>
      <Field id="due" label="Wanted by" errors={$errors.due}>
        {#snippet children(a)}<input {...a} class="input w-full" type="date" bind:value={$form.due} />{/snippet}
      </Field>
      <div class="col-span-2">
        <Field id="words" label="In the customer’s words" errors={$errors.words}>
          {#snippet children(a)}<textarea {...a} class="textarea w-full" rows="2" bind:value={$form.words}
            ></textarea>{/snippet}
        </Field>
      </div>
      <div role="status" class="col-span-2 flex flex-col gap-2" class:mb-2={taken}>
        {#if taken}
          <p class="border-l-4 border-info px-3 py-1">
            {#if taken.tag}
              Filled in as tag <a class="figure link" href="/unit/{taken.tag}">{taken.tag}</a> was built: compare with the
              plate.
            {:else}
              Filled in from the shelf: compare with the plate.
            {/if}
          </p>
          {#each taken.warnings as { about, say }, i (i)}
            <p class="border-l-4 border-warning px-3 py-1"><strong>{trapAbouts[about]}.</strong> {say}</p>
          {/each}
        {/if}
      </div>
      {#if taken?.variants.length}
        <div class="col-span-2">
          <Field id="variant" label="Which of them is it?" errors={undefined}>
            {#snippet children(a)}
              <select {...a} class="select w-full" value={variant} onchange={(e) => onVariant(e.currentTarget.value)}>
                <option value="">as usual, or not known</option>
                {#each taken?.variants ?? [] as { name, tell } (name)}<option value={name}>{name}: {tell}</option
                  >{/each}
              </select>
            {/snippet}
          </Field>
        </div>
      {/if}
      {#each earlier as { tag, at, course, reason } (tag)}
        <p role="status" class="col-span-2 mb-2 border-l-4 border-warning px-3 py-1">
          This serial number was here: tag <a class="figure link" href="/unit/{tag}/report">{tag}</a>, {dayOf(at)}.
          {course ? `${courseNames[course]}: ${reason}` : 'Nothing was decided.'}
        </p>
      {/each}
    </fieldset>

    <fieldset class="sheet grid grid-cols-2 content-start gap-x-4 p-4">
      <legend class="px-1 text-lg font-semibold">As built</legend>
      <MachineFields
        machine={$form.machine}
        errors={$errors.machine as never}
        {touched}
        onchange={(machine, looked) => {
          $form.machine = machine;
          touched = looked;
          if (!complaints.some(({ id }) => id === $form.complaint)) $form.complaint = '';
        }}
      />
      <details class="col-span-2">
        <summary class="min-h-11 cursor-pointer py-2">Direction, connector, what came with it</summary>
        <div class="grid grid-cols-2 gap-x-4">
          <Field id="direction" label="Turns, seen from the drive" errors={$errors.plate?.direction}>
            {#snippet children(a)}
              <select {...a} class="select w-full" bind:value={$form.plate.direction}>
                {#each directions as direction (direction)}<option value={direction}>{direction || 'not read'}</option
                  >{/each}
              </select>
            {/snippet}
          </Field>
          {#if familyOf($form.machine).generates}
            <Field id="pulley" label="Pulley" errors={$errors.plate?.pulley}>
              {#snippet children(a)}
                <select {...a} class="select w-full" bind:value={$form.plate.pulley}>
                  {#each pulleys as pulley (pulley)}<option value={pulley}>{pulley || 'not read'}</option>{/each}
                </select>
              {/snippet}
            </Field>
          {/if}
          <Field id="connector" label="Connector" errors={$errors.plate?.connector}>
            {#snippet children(a)}<input
                {...a}
                class="input w-full"
                type="text"
                bind:value={$form.plate.connector}
              />{/snippet}
          </Field>
          <Field id="came-with" label="Came with" errors={$errors.plate?.cameWith}>
            {#snippet children(a)}<input
                {...a}
                class="input w-full"
                type="text"
                bind:value={$form.plate.cameWith}
              />{/snippet}
          </Field>
        </div>
      </details>
      {#if machineProblem}<p role="alert" class="col-span-2 text-error">
          {machineProblem}
        </p>{/if}
    </fieldset>
    <div class="flex justify-end gap-3 md:col-span-2">
      <a class="btn" href="/">Not now</a>
      <button
        type="button"
        class="btn"
        disabled={$submitting}
        onclick={(event) => {
          $form.next = 'vehicle';
          event.currentTarget.form?.requestSubmit();
        }}>Check in, vehicle first</button
      >
      <button class="btn btn-primary" disabled={$submitting} onclick={() => ($form.next = 'bench')}
        >Check in and start</button
      >
    </div>
  </form>
</section>
