<script lang="ts">
  import { type ClawPole, clawPoleGeneric, families } from '@refectum/core/machines';
  import { untrack } from 'svelte';
  import { superForm } from 'sveltekit-superforms';
  import { yupClient } from 'sveltekit-superforms/adapters';
  import Field from '$lib/parts/Field.svelte';
  import QuantityField from '$lib/parts/QuantityField.svelte';
  import { dayOf } from '$lib/dates.ts';
  import { directions, type KnownModel, pulleys } from '$lib/job.ts';
  import { notTaken } from '$lib/not-taken.ts';
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
  const complaints = families['claw-pole'].complaints;

  /** What the plate doesn't say follows the rated volts, unless it was typed. */
  let touched = $state(false);
  function setVolts(volts: 12 | 24) {
    const usual = clawPoleGeneric(volts, $form.machine.ratedAmps);
    $form.machine.ratedVolts = volts;
    if (touched) return;
    $form.machine.statorPairOhms = usual.statorPairOhms;
    $form.machine.rotorOhms = usual.rotorOhms;
  }
  let customers = $state.raw<readonly string[]>([]);
  let models = $state.raw<readonly KnownModel[]>([]);
  /** The model that the build was taken from. */
  let taken = $state.raw<KnownModel>();
  let variant = $state('');
  let earlier = $state.raw<readonly { tag: number; at: string; course?: CourseId; reason?: string }[]>([]);

  async function onCustomer() {
    customers = await known('customer', $form.customer);
  }
  /** A model that was here before is filled in as it was built then. */
  async function onModel() {
    models = await known<KnownModel>('model', $form.model);
    const same = models.find(({ model }) => model.toLowerCase() === $form.model.trim().toLowerCase());
    if (taken !== undefined && !same) {
      // It was another model's build.
      $form.machine = clawPoleGeneric(12, 90);
      $form.plate = { ...$form.plate, direction: '', pulley: '', connector: '' };
      touched = false;
    }
    if (same?.model !== taken?.model) variant = '';
    taken = same;
    if (!same) return;
    $form.machine = { ...same.machine };
    $form.plate = { ...$form.plate, ...same.plate, cameWith: $form.plate.cameWith };
    touched = true;
  }
  /** What isn't known of a variant is as with the model. */
  function onVariant(name: string) {
    variant = name;
    const machine = taken?.variants.find((one) => one.name === name)?.machine ?? taken?.machine;
    if (machine) $form.machine = { ...machine };
  }
  async function onSerial() {
    earlier = await known('serial', $form.serial);
  }

  const set = <K extends keyof ClawPole>(name: K, value: number | undefined) => {
    ($form.machine as unknown as Record<string, number | undefined>)[name] = value;
  };
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
          {#each taken.warnings as { about, say } (about + say)}
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
      <legend class="px-1 text-lg font-semibold">Claw-pole alternator, as built</legend>
      <Field id="volts" label="Rated voltage" errors={undefined}>
        {#snippet children(a)}
          <select
            {...a}
            class="select w-full"
            value={$form.machine.ratedVolts}
            onchange={(e) => setVolts(e.currentTarget.value === '24' ? 24 : 12)}
          >
            <option value={12}>12 V</option>
            <option value={24}>24 V</option>
          </select>
        {/snippet}
      </Field>
      <QuantityField
        id="amps"
        label="Rated current"
        unit="amps"
        value={$form.machine.ratedAmps}
        errors={$errors.machine?.ratedAmps}
        onvalue={(v) => set('ratedAmps', v)}
      />
      <Field id="connection" label="Stator" errors={$errors.machine?.connection}>
        {#snippet children(a)}
          <select {...a} class="select w-full" bind:value={$form.machine.connection}>
            <option value="unknown">not known</option>
            <option value="star">star</option>
            <option value="delta">delta</option>
          </select>
        {/snippet}
      </Field>
      <Field id="diodes" label="Rectifier" errors={$errors.machine?.diodes}>
        {#snippet children(a)}
          <select {...a} class="select w-full" bind:value={$form.machine.diodes}>
            <option value={6}>six diodes</option>
            <option value={8}>eight: two on the star point</option>
          </select>
        {/snippet}
      </Field>
      <Field id="kind" label="Diode kind" errors={$errors.machine?.diodeKind}>
        {#snippet children(a)}
          <select {...a} class="select w-full" bind:value={$form.machine.diodeKind}>
            <option value="unknown">not known</option>
            <option value="silicon">silicon</option>
            <option value="low-loss">low-loss</option>
          </select>
        {/snippet}
      </Field>
      <Field id="exciter" label="Exciter diodes" errors={$errors.machine?.exciterDiodes}>
        {#snippet children(a)}
          <select {...a} class="select w-full" bind:value={$form.machine.exciterDiodes}>
            <option value={true}>three</option>
            <option value={false}>none</option>
          </select>
        {/snippet}
      </Field>
      <div class="col-span-2">
        <Field id="side" label="Field circuit" errors={$errors.machine?.regulatorSide}>
          {#snippet children(a)}
            <select {...a} class="select w-full" bind:value={$form.machine.regulatorSide}>
              <option value="ground">regulator on the ground side, both brushes insulated</option>
              <option value="supply">regulator on the supply side, one brush grounded</option>
            </select>
          {/snippet}
        </Field>
      </div>
      <details class="col-span-2">
        <summary class="min-h-11 cursor-pointer py-2">Direction, pulley, connector, what came with it</summary>
        <div class="grid grid-cols-2 gap-x-4">
          <Field id="direction" label="Turns, seen from the pulley" errors={$errors.plate?.direction}>
            {#snippet children(a)}
              <select {...a} class="select w-full" bind:value={$form.plate.direction}>
                {#each directions as direction (direction)}<option value={direction}>{direction || 'not read'}</option
                  >{/each}
              </select>
            {/snippet}
          </Field>
          <Field id="pulley" label="Pulley" errors={$errors.plate?.pulley}>
            {#snippet children(a)}
              <select {...a} class="select w-full" bind:value={$form.plate.pulley}>
                {#each pulleys as pulley (pulley)}<option value={pulley}>{pulley || 'not read'}</option>{/each}
              </select>
            {/snippet}
          </Field>
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
      <details class="col-span-2">
        <summary class="min-h-11 cursor-pointer py-2">Windings and brushes, at 20 °C</summary>
        <div class="grid grid-cols-2 gap-x-4" oninput={() => (touched = true)}>
          <QuantityField
            id="stator-pair"
            label="Stator, lead to lead"
            unit="ohms"
            value={$form.machine.statorPairOhms}
            errors={$errors.machine?.statorPairOhms}
            onvalue={(v) => set('statorPairOhms', v)}
          />
          <QuantityField
            id="rotor"
            label="Rotor, ring to ring"
            unit="ohms"
            value={$form.machine.rotorOhms}
            errors={$errors.machine?.rotorOhms}
            onvalue={(v) => set('rotorOhms', v)}
          />
          <QuantityField
            id="brush-new"
            label="Brush, new"
            unit="millimetres"
            value={$form.machine.brushNewMillimetres}
            errors={$errors.machine?.brushNewMillimetres}
            onvalue={(v) => set('brushNewMillimetres', v)}
          />
          <QuantityField
            id="brush-least"
            label="Brush, least"
            unit="millimetres"
            value={$form.machine.brushLeastMillimetres}
            errors={$errors.machine?.brushLeastMillimetres}
            onvalue={(v) => set('brushLeastMillimetres', v)}
          />
        </div>
      </details>
      {#if $errors.machine?._errors?.length}<p role="alert" class="col-span-2 text-error">
          {$errors.machine._errors[0]}
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
