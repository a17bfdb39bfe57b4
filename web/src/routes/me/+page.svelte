<script lang="ts">
  import { dayAndTimeOf } from '$lib/dates.ts';
  import Field from '$lib/parts/Field.svelte';
  import { roles } from '$lib/people.ts';

  const { data, form } = $props();
  const told = (of: string, field: string): string[] | undefined => {
    if (!form || !('problems' in form) || form.form !== of) return undefined;
    const message = (form.problems as Readonly<Record<string, string>>)[field];
    return message ? [message] : undefined;
  };
  const role = $derived(roles.find(({ id }) => id === data.person.role)!);
</script>

<svelte:head><title>{data.person.name} · Refectum</title></svelte:head>

{#snippet change(of: 'pin' | 'password', label: string)}
  <form method="POST" action="?/{of}" class="sheet flex flex-col gap-1 p-4">
    <h2 class="mb-2 text-lg font-semibold">Another {of === 'pin' ? 'PIN' : 'password'}</h2>
    <Field id="{of}-old" label="PIN or password you have now" errors={told(of, 'old')}>
      {#snippet children(a)}
        <input {...a} name="old" class="input w-full" type="password" autocomplete="current-password" />
      {/snippet}
    </Field>
    <Field id="{of}-new" {label} errors={told(of, of)}>
      {#snippet children(a)}
        <input
          {...a}
          name={of}
          class="input w-full"
          type="password"
          inputmode={of === 'pin' ? 'numeric' : undefined}
          autocomplete="new-password"
        />
      {/snippet}
    </Field>
    <button class="btn self-end">Change it</button>
  </form>
{/snippet}

<section class="mx-auto flex w-full max-w-4xl flex-col gap-4 p-4">
  <h1 class="text-2xl font-semibold">{data.person.name}, {role.name}: {role.may}</h1>
  {#if form && 'changed' in form}<p role="status" class="border-l-4 border-success px-3 py-1 text-lg">
      {form.changed}
    </p>{/if}
  <div class="grid gap-4 md:grid-cols-2">
    {@render change('pin', 'New PIN, 4 to 8 digits')}
    {@render change('password', 'New password, 10 characters or more')}
  </div>
  <section class="sheet p-4" aria-labelledby="signed-in">
    <h2 id="signed-in" class="mb-2 text-lg font-semibold">Signed in</h2>
    <ul>
      {#each data.sessions as { here, openedAt, address } (openedAt + address)}
        <li class="py-1">
          {here ? 'Here' : address ? `At ${address}` : 'Elsewhere on this machine'}, since {dayAndTimeOf(openedAt)}
        </li>
      {/each}
    </ul>
    <form method="POST" action="?/everywhere" class="mt-3 text-right">
      <button class="btn">Sign out everywhere</button>
    </form>
  </section>
</section>
