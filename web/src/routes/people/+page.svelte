<script lang="ts">
  import { enhance } from '$app/forms';
  import { dayOf } from '$lib/dates.ts';
  import { sends } from '$lib/sends.ts';
  import { roles } from '$lib/people.ts';

  const { data, form } = $props();
  const here = $derived(data.people.filter(({ left }) => !left));
  const gone = $derived(data.people.filter(({ left }) => left));

  /** Whose form was sent last: the answer stands there. Above all of them where its own place may be gone. */
  let sent = $state('above');
  /** Why the server took nothing. */
  let away = $state('');
  const done = $derived(form && 'done' in form ? form.done : '');
  const problem = $derived(away || (form && 'problem' in form ? form.problem : ''));
  /** Refused, what was typed stays; taken, secrets are emptied. */
  const sendsAt = (where: string, how?: { readonly empties: boolean }) =>
    sends((why) => {
      sent = where;
      away = why;
    }, how);
</script>

<svelte:head><title>People · Refectum</title></svelte:head>

{#snippet told(where: string)}
  {#if sent === where && problem}
    <p role="alert" class="w-full border-l-4 border-error px-3 py-1 text-lg">{problem}</p>
  {:else if sent === where && done}
    <p role="status" class="w-full border-l-4 border-success px-3 py-1 text-lg">{done}</p>
  {/if}
{/snippet}
{#snippet roleChoice(chosen: string)}
  <label class="flex flex-col text-sm">
    Role
    <select name="role" class="select h-11 w-36" value={chosen}>
      {#each roles as { id, name, may } (id)}<option value={id} title={may}>{name}</option>{/each}
    </select>
  </label>
{/snippet}

<section class="mx-auto flex w-full max-w-5xl flex-col gap-4 p-4">
  <h1 class="text-2xl font-semibold">People</h1>
  {@render told('above')}

  <ul class="sheet divide-y divide-base-300">
    {#each here as { id, name, role, hasPin, hasPassword } (id)}
      <li class="p-3">
        <details>
          <summary class="flex min-h-11 cursor-pointer flex-wrap items-center gap-4 text-lg">
            <span class="grow font-semibold">{name}</span>
            <span>{roles.find((one) => one.id === role)!.name}</span>
            <span class="w-48"
              >{[hasPin && 'PIN', hasPassword && 'password'].filter(Boolean).join(' and ') || 'shut out'}</span
            >
            <span class="link text-base">Change</span>
          </summary>
          <div class="mt-2 flex flex-wrap items-end gap-x-8 gap-y-3">
            <form method="POST" action="?/change" use:enhance={sendsAt(id)} class="flex items-end gap-2">
              <input type="hidden" name="id" value={id} />
              {@render roleChoice(role)}
              <button class="btn">Set</button>
            </form>
            <form
              method="POST"
              action="?/pin"
              use:enhance={sendsAt(id, { empties: true })}
              class="flex items-end gap-2"
            >
              <input type="hidden" name="id" value={id} />
              <label class="flex flex-col text-sm">
                New PIN
                <input
                  name="pin"
                  class="figure input h-11 w-28"
                  type="password"
                  inputmode="numeric"
                  autocomplete="off"
                />
              </label>
              <button class="btn">Give</button>
            </form>
            <form
              method="POST"
              action="?/password"
              use:enhance={sendsAt(id, { empties: true })}
              class="flex items-end gap-2"
            >
              <input type="hidden" name="id" value={id} />
              <label class="flex flex-col text-sm">
                New password
                <input name="password" class="input h-11 w-44" type="password" autocomplete="new-password" />
              </label>
              <button class="btn">Give</button>
            </form>
            <form method="POST" action="?/out" use:enhance={sendsAt(id)}>
              <input type="hidden" name="id" value={id} />
              <button class="btn">Sign out everywhere</button>
            </form>
            <form method="POST" action="?/change" use:enhance={sendsAt('above')}>
              <input type="hidden" name="id" value={id} />
              <input type="hidden" name="role" value={role} />
              <button name="left" value="yes" class="btn">{name} has left</button>
            </form>
            {@render told(id)}
          </div>
        </details>
      </li>
    {/each}
  </ul>

  <form
    method="POST"
    action="?/add"
    use:enhance={sendsAt('new', { empties: true })}
    class="sheet flex flex-wrap items-end gap-3 p-4"
  >
    <h2 class="w-full text-lg font-semibold">Somebody new</h2>
    <label class="flex grow flex-col text-sm"
      >Name <input name="name" class="input h-11 w-full" autocomplete="off" /></label
    >
    {@render roleChoice('technician')}
    <label class="flex flex-col text-sm">
      PIN, 4 to 8 digits
      <input name="pin" class="figure input h-11 w-36" type="password" inputmode="numeric" autocomplete="off" />
    </label>
    <button class="btn btn-primary">Let in</button>
    {@render told('new')}
  </form>

  <section class="sheet p-4" aria-labelledby="screens">
    <h2 id="screens" class="text-lg font-semibold">Bench screens</h2>
    <p>PINs are taken on the machine that serves and on the screens named here; anywhere else it takes a password.</p>
    <ul>
      {#each data.screens as { id, name, madeAt } (id)}
        <li class="flex items-center gap-4 py-1">
          <span class="grow">{name}, since {dayOf(madeAt.toISOString())}</span>
          <form method="POST" action="?/forget" use:enhance={sendsAt('screens')}>
            <input type="hidden" name="screen" value={id} />
            <button class="btn">No longer</button>
          </form>
        </li>
      {/each}
    </ul>
    {#if data.here === 'serving'}
      <p class="mt-2">This screen is the serving machine’s own.</p>
    {:else if data.here === 'bench'}
      <p class="mt-2">This screen is one of them.</p>
    {:else}
      <form method="POST" action="?/screen" use:enhance={sendsAt('screens')} class="mt-2 flex items-end gap-2">
        <label class="flex flex-col text-sm"
          >Name of this screen <input name="name" class="input h-11 w-56" placeholder="tablet at bench 2" /></label
        >
        <button class="btn">Make it a bench screen</button>
      </form>
    {/if}
    {@render told('screens')}
  </section>

  {#if gone.length}
    <section class="sheet p-4" aria-labelledby="gone">
      <h2 id="gone" class="text-lg font-semibold">Have left</h2>
      <ul>
        {#each gone as { id, name, role } (id)}
          <li class="flex items-center gap-4 py-1">
            <span class="grow">{name}</span>
            <form method="POST" action="?/change" use:enhance={sendsAt('above')}>
              <input type="hidden" name="id" value={id} />
              <input type="hidden" name="role" value={role} />
              <button class="btn">Is back</button>
            </form>
          </li>
        {/each}
      </ul>
    </section>
  {/if}
</section>
