<script lang="ts">
  import { untrack } from 'svelte';
  import Field from '$lib/parts/Field.svelte';

  const { data, form } = $props();
  const problems = $derived<Readonly<Record<string, string>>>((form && 'problems' in form && form.problems) || {});
  const problem = $derived(problems.form ?? (form && 'problem' in form ? form.problem : ''));
  /** Who is about to sign in: the same as tried before, or whoever is not signed in. */
  let who = $state(
    untrack(() => form?.who || (data.names.find(({ id }) => id !== data.person?.id) ?? data.names[0])?.id || ''),
  );
  let names = $state<HTMLFieldSetElement>();
  let pin = $state<HTMLInputElement>();

  $effect(() => {
    if (form?.who) pin?.focus();
    else names?.querySelector<HTMLInputElement>('input:checked')?.focus();
  });

  /** A first letter goes to the next such name, a digit begins the PIN. */
  function onNameKey(event: KeyboardEvent) {
    if (event.ctrlKey || event.altKey || event.metaKey || event.key.length !== 1) return;
    if (/\d/.test(event.key)) {
      pin?.focus();
      return;
    }
    const letter = event.key.toLowerCase();
    const fitting = data.names.filter(({ name }) => name.toLowerCase().startsWith(letter));
    const at = fitting.findIndex(({ id }) => id === who);
    const next = fitting[(at + 1) % Math.max(fitting.length, 1)];
    if (!next) return;
    event.preventDefault();
    who = next.id;
    names?.querySelector<HTMLInputElement>(`input[value="${next.id}"]`)?.focus();
  }
  const secretOf = (name: string) => data.demo.find((one) => one.name === name);
</script>

<svelte:head><title>Who works here? · Refectum</title></svelte:head>

<section class="mx-auto flex w-full max-w-xl flex-col gap-4 p-4 pt-8">
  {#if data.unmanned === 'elsewhere'}
    <h1 class="text-2xl font-semibold">{data.shop.name} has no lead yet</h1>
    <p class="text-lg">The first lead is made at the machine that serves: open this page there.</p>
  {:else if data.unmanned}
    <h1 class="text-2xl font-semibold">The first lead of this shop</h1>
    <p class="text-lg">
      Every reading, strike and verdict carries a name. Whoever comes first is the lead, and lets the others in.
    </p>
    <form method="POST" action="?/first" class="sheet flex flex-col gap-1 p-4">
      <Field id="first-name" label="Your name" errors={problems.name ? [problems.name] : undefined}>
        {#snippet children(a)}
          <input {...a} name="name" class="input w-full" autocomplete="name" list="earlier" required />
        {/snippet}
      </Field>
      <datalist id="earlier"
        >{#each data.earlier as name (name)}<option value={name}></option>{/each}</datalist
      >
      <Field
        id="first-pin"
        label="A PIN for the shop’s screens, 4 to 8 digits"
        errors={problems.pin ? [problems.pin] : undefined}
      >
        {#snippet children(a)}
          <input {...a} name="pin" class="figure input w-40" type="password" inputmode="numeric" autocomplete="off" />
        {/snippet}
      </Field>
      <Field
        id="first-password"
        label="A password for everywhere else, 10 characters or more"
        errors={problems.password ? [problems.password] : undefined}
      >
        {#snippet children(a)}
          <input {...a} name="password" class="input w-full" type="password" autocomplete="new-password" />
        {/snippet}
      </Field>
      <p role="alert" class="min-h-6 text-error">{problem}</p>
      <button class="btn self-end btn-primary">Begin</button>
    </form>
  {:else if data.atBench && data.names.length}
    <h1 class="text-2xl font-semibold">Who works here?</h1>
    <form method="POST" action="?/pin" class="sheet flex flex-col gap-4 p-4">
      <input type="hidden" name="back" value={data.back} />
      <!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
      <fieldset bind:this={names} onkeydown={onNameKey}>
        <legend class="sr-only">Name</legend>
        {#each data.names as { id, name } (id)}
          <label
            class="flex min-h-12 cursor-pointer items-center gap-3 border-b border-base-300 px-2 text-lg"
            class:bg-base-200={who === id}
            onpointerup={() => setTimeout(() => pin?.focus())}
          >
            <input type="radio" class="radio" name="who" value={id} bind:group={who} />
            <span class="grow" class:font-semibold={who === id}>{name}</span>
            {#if id === data.person?.id}<span>signed in</span>{/if}
            {#if secretOf(name)}<span class="figure">PIN {secretOf(name)!.pin}</span>{/if}
          </label>
        {/each}
      </fieldset>
      <div class="flex items-end gap-4">
        <label class="flex flex-col">
          PIN
          <input
            bind:this={pin}
            name="pin"
            class="figure input w-48 input-lg"
            type="password"
            inputmode="numeric"
            autocomplete="off"
            maxlength="8"
            aria-describedby="sign-in-problem"
          />
        </label>
        <button class="btn btn-lg btn-primary">Sign in</button>
      </div>
      <p id="sign-in-problem" role="alert" class="min-h-6 text-lg text-error">{problem}</p>
    </form>
    {#if data.demo.length}
      <p class="border-l-4 border-info px-3 py-1">
        This is the demo: its people’s PINs stand beside their names. Passwords, for other screens:
        {#each data.demo.filter(({ password }) => password) as { name, password } (name)}
          {name} <span class="figure">{password}</span>
        {/each}
      </p>
    {/if}
  {/if}
  {#if !data.unmanned}
    <details open={!data.atBench || data.names.length === 0} class="sheet px-4">
      <summary class="min-h-11 cursor-pointer py-2.5">With a password</summary>
      <form method="POST" action="?/password" class="flex flex-col gap-3 pb-4">
        <input type="hidden" name="back" value={data.back} />
        <label class="flex flex-col">Name <input name="name" class="input w-full" autocomplete="username" /></label>
        <label class="flex flex-col">
          Password
          <input name="password" class="input w-full" type="password" autocomplete="current-password" />
        </label>
        {#if !data.atBench || data.names.length === 0}
          <p role="alert" class="min-h-6 text-lg text-error">{problem}</p>
        {/if}
        <button class="btn self-end">Sign in with the password</button>
      </form>
    </details>
  {/if}
  {#if data.person}
    <div class="flex items-center justify-between gap-4">
      <a class="link" href="/me">{data.person.name}: PIN, password, other screens</a>
      <form method="POST" action="/sign-out"><button class="btn">Sign out</button></form>
    </div>
  {/if}
</section>
