<script lang="ts">
  import '../app.css';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { tagFromCode } from '$lib/job.ts';
  import { isFree, keys, keysOn, switchKeys } from '$lib/keys.ts';
  import { outbox } from '$lib/live/outbox.svelte.ts';
  import { watchScanner } from '$lib/live/scanner.ts';

  const { data, children } = $props();
  let find = $state('');
  let findProblem = $state('');
  let findField = $state<HTMLInputElement>();
  let keysDialog = $state<HTMLDialogElement>();
  let lettersAct = $state(true);
  const back = $derived(page.url.pathname + page.url.search);

  /** Back here, whoever signs in. */
  const signInHref = $derived(`/sign-in?${new URLSearchParams({ back })}`);

  const heldBy = $derived(
    [...new Set(outbox.held.map(({ by }) => by))].map((name) => ({
      name,
      count: outbox.held.filter(({ by }) => by === name).length,
    })),
  );
  const open = (tag: number) => goto(`/unit/${tag}`);

  $effect(() => watchScanner(open));
  $effect(() => {
    lettersAct = keysOn();
    void outbox.open();
    document.documentElement.dataset.ready = 'yes';
  });

  async function onFind(event: SubmitEvent) {
    event.preventDefault();
    const tag = tagFromCode(find);
    if (tag === undefined) {
      findProblem = `“${find}” is no tag number: type digits, like 1004.`;
      return;
    }
    find = findProblem = '';
    await open(tag);
  }

  function onKey(event: KeyboardEvent) {
    if (event.ctrlKey || event.altKey || event.metaKey || event.defaultPrevented || !keysOn()) return;
    if (!isFree(event)) return;
    if (event.key === '/') findField?.focus();
    else if (event.key === 'w') location.assign(signInHref);
    else if (event.key === '?') keysDialog?.showModal();
    else if (event.key === 'v' && page.params.tag) void goto(`/unit/${page.params.tag}/verdict`);
    else if (event.key === 'b' && page.params.tag) void goto(`/unit/${page.params.tag}`);
    else return;
    event.preventDefault();
  }
</script>

<svelte:window onkeydown={onKey} />

<div class="flex min-h-screen flex-col">
  {#if !page.route.id?.startsWith('/p/')}
    <header
      class="no-print flex flex-wrap items-center gap-x-2 gap-y-2 bg-neutral px-4 py-1.5 text-neutral-content lg:gap-x-5"
    >
      <a href="/" class="text-lg font-semibold tracking-wide">Refectum</a>
      <nav class="flex gap-1" aria-label="Rooms">
        <a
          class="px-1 py-2 underline-offset-4 hover:underline lg:px-2"
          href="/"
          aria-current={page.url.pathname === '/' ? 'page' : undefined}>Rack</a
        >
        <a
          class="px-1 py-2 underline-offset-4 hover:underline lg:px-2"
          href="/check-in"
          aria-current={page.route.id === '/check-in' ? 'page' : undefined}>Check in</a
        >
        <a
          class="px-1 py-2 underline-offset-4 hover:underline lg:px-2"
          href="/sums"
          aria-current={page.route.id === '/sums' ? 'page' : undefined}>Sums</a
        >
        <a
          class="px-1 py-2 underline-offset-4 hover:underline lg:px-2"
          href="/shelf"
          aria-current={page.route.id === '/shelf' ? 'page' : undefined}>Shelf</a
        >
        <a
          class="px-1 py-2 underline-offset-4 hover:underline lg:px-2"
          href="/shop"
          aria-current={page.route.id === '/shop' ? 'page' : undefined}>Shop</a
        >
        {#if data.person?.role === 'lead'}
          <a
            class="px-1 py-2 underline-offset-4 hover:underline lg:px-2"
            href="/people"
            aria-current={page.route.id === '/people' ? 'page' : undefined}>People</a
          >
        {/if}
      </nav>
      <form class="relative flex items-center gap-2" onsubmit={onFind} role="search">
        <label for="find-tag" class="max-lg:sr-only">Find tag</label>
        <input
          id="find-tag"
          type="text"
          bind:this={findField}
          bind:value={find}
          oninput={() => (findProblem = '')}
          class="input h-9 w-20 bg-base-100 text-base-content input-sm placeholder:text-base-content lg:w-24 lg:placeholder:text-transparent"
          placeholder="Find tag"
          inputmode="numeric"
          autocomplete="off"
          aria-describedby="find-problem"
        />
        {#if findProblem}
          <p id="find-problem" role="alert" class="absolute top-11 left-0 z-10 w-80 bg-error p-2 text-error-content">
            {findProblem}
          </p>
        {/if}
      </form>
      <span class="grow"></span>
      {#each heldBy as { name, count } (name)}
        <p role="status" class="bg-warning px-2 py-1 text-warning-content">
          {count} by {name} kept here: sent once {name} signs in
        </p>
      {/each}
      {#if outbox.away}
        <p role="status" class="bg-warning px-2 py-1 text-warning-content">
          Server away: {outbox.waiting.length} waiting here, nothing is lost
        </p>
      {/if}
      {#if data.person}
        <a
          class="px-1 py-2 underline-offset-4 hover:underline lg:px-2"
          href={signInHref}
          data-sveltekit-reload
          title="Somebody else, or sign out">{data.person.name}</a
        >
      {/if}
      <form method="POST" action="/theme">
        <input type="hidden" name="back" value={back} />
        <button
          name="theme"
          value={data.theme === 'day' ? 'night' : 'day'}
          class="px-1 py-2 underline-offset-4 hover:underline lg:px-2"
        >
          {data.theme === 'day' ? 'Dark' : 'Light'}
        </button>
      </form>
      <button class="px-1 py-2 underline-offset-4 hover:underline lg:px-2" onclick={() => keysDialog?.showModal()}
        >Keys</button
      >
    </header>
  {/if}

  {#each outbox.returned as { item, message } (item.id)}
    <div role="alert" class="no-print flex items-center gap-4 bg-error px-4 py-2 text-error-content">
      <p class="grow">Tag {item.tag}: not taken{item.body.typed ? ` (“${String(item.body.typed)}”)` : ''}. {message}</p>
      <button class="btn btn-sm" onclick={() => void outbox.dismiss(item.id)}>Seen</button>
    </div>
  {/each}

  <main class="flex grow flex-col">{@render children()}</main>
</div>

<dialog
  bind:this={keysDialog}
  class="modal select-none"
  onclose={() => getSelection()?.removeAllRanges()}
  aria-labelledby="keys-title"
>
  <div class="modal-box">
    <h2 id="keys-title" class="mb-3 text-lg font-semibold">Keys</h2>
    <dl class="grid grid-cols-[6rem_1fr] gap-y-2">
      {#each keys as { key, does } (key)}
        <dt class="figure font-semibold">{key}</dt>
        <dd>{does}</dd>
      {/each}
    </dl>
    <label class="mt-4 flex min-h-11 items-center gap-3">
      <input
        type="checkbox"
        class="checkbox"
        checked={lettersAct}
        onchange={(event) => switchKeys((lettersAct = event.currentTarget.checked))}
      />
      Letters and signs act as keys
    </label>
    <form method="dialog" class="mt-4 text-right"><button class="btn btn-primary">Close</button></form>
  </div>
</dialog>
