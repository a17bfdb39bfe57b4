<script lang="ts">
  import type { TagFacts } from '$lib/job.ts';
  import { watchChanges } from '$lib/live/changes.ts';
  import { freshId, outbox } from '$lib/live/outbox.svelte.ts';
  import { refresh } from '$lib/live/refresh.ts';
  import Tag from '$lib/parts/Tag.svelte';
  import { type Stand, stands } from '$lib/stands.ts';

  const { data } = $props();
  let problem = $state('');
  /** The tag that is about to be handed over, and to whom. */
  let leaving = $state<number>();
  let takenBy = $state('');
  let over = $state<Stand>();

  /** Where a unit stands, moves on their way to the server included. */
  const standOf = ({ tag, stand }: TagFacts): Stand =>
    (outbox.waiting.findLast((item) => item.tag === tag && item.path.endsWith('/moves'))?.body.to as Stand) ?? stand;
  const shown = $derived(
    stands.map((stand) => ({ ...stand, tags: data.tags.filter((facts) => standOf(facts) === stand.id) })),
  );

  $effect(() => {
    const off = [
      watchChanges(
        () => data.asOf,
        () => void refresh(),
        () => void refresh(),
      ),
      outbox.onDelivered(() => void refresh()),
    ];
    return () => off.forEach((end) => end());
  });

  async function carry(tag: number, to: Stand, note = '') {
    problem = '';
    if (to === 'gone' && !note) {
      leaving = tag;
      return;
    }
    leaving = undefined;
    takenBy = '';
    const id = freshId();
    const path = `/api/jobs/${tag}/moves`;
    await outbox.send(data.person, { id, tag, method: 'POST', path, body: { id, to, note } });
  }

  function onChoice(event: Event & { currentTarget: HTMLSelectElement }, facts: TagFacts) {
    const to = event.currentTarget.value as Stand;
    // It stands where it stood until it is moved.
    event.currentTarget.value = standOf(facts);
    void carry(facts.tag, to);
  }
  function onDrop(event: DragEvent, to: Stand) {
    event.preventDefault();
    over = undefined;
    const tag = Number(event.dataTransfer?.getData('text/plain'));
    const facts = data.tags.find((one) => one.tag === tag);
    if (facts && standOf(facts) !== to) void carry(tag, to);
  }
  function notYet() {
    leaving = undefined;
    problem = '';
  }
  function onHandOver(event: SubmitEvent) {
    event.preventDefault();
    if (!takenBy.trim()) problem = 'Say who took it: a name is enough.';
    else void carry(leaving!, 'gone', takenBy.trim());
  }
  const focus = (field: HTMLElement) => field.focus();
</script>

<svelte:head><title>Rack · Refectum</title></svelte:head>

{#snippet hung(facts: TagFacts)}
  {@const stand = standOf(facts)}
  <li
    draggable="true"
    ondragstart={(event) => event.dataTransfer?.setData('text/plain', String(facts.tag))}
    class="-m-2 flex flex-col p-2 [contain-intrinsic-size:auto_8.5rem] [content-visibility:auto]"
  >
    <a href="/unit/{facts.tag}" class="block" draggable="false"><Tag {facts} /></a>
    {#if leaving === facts.tag}
      <form class="mt-1 flex flex-wrap items-end gap-2" onsubmit={onHandOver}>
        <label class="flex w-full flex-col gap-1 text-sm">
          Who took it?
          <input
            type="text"
            class="input h-9 w-full"
            maxlength="200"
            bind:value={takenBy}
            oninput={() => (problem = '')}
            aria-invalid={problem ? 'true' : undefined}
            aria-describedby="hand-over-problem"
            {@attach focus}
          />
        </label>
        <p id="hand-over-problem" role="alert" class="w-full text-sm text-error">{problem}</p>
        <button class="btn h-9 btn-primary">Hand over</button>
        <button type="button" class="btn h-9" onclick={notYet}>Not yet</button>
      </form>
    {:else}
      <select
        class="mt-0.5 h-9 w-32 self-end bg-transparent text-sm"
        aria-label="Move tag {facts.tag}"
        value={stand}
        onchange={(event) => onChoice(event, facts)}
      >
        {#each stands as { id, name } (id)}<option value={id}>{id === stand ? 'Move to…' : name}</option>{/each}
      </select>
    {/if}
  </li>
{/snippet}

<section class="grow p-4">
  <div class="mb-3 flex flex-wrap items-center gap-4">
    <h1 class="text-2xl font-semibold">Rack</h1>
    <p>{data.shop.name}</p>
    <span class="grow"></span>
    <form class="flex items-center gap-2" role="search" aria-label="On the rack" data-sveltekit-keepfocus>
      <label for="find">Search</label>
      <input
        id="find"
        name="find"
        type="search"
        class="input h-9 w-56"
        placeholder="customer, model, serial, tag"
        value={data.find}
      />
    </form>
    <a class="btn btn-primary" href="/check-in">Check a unit in</a>
  </div>
  {#if data.find}
    <p class="mb-3 text-lg" role="status">
      {data.full ? `The newest ${data.tags.length}` : data.tags.length} found for “{data.find}”.
      <a class="link" href="/">Whole rack</a>
    </p>
  {:else if data.full}
    <p class="mb-3" role="status">The rack holds more than is shown here: search finds the rest.</p>
  {/if}
  {#if data.tags.length === 0 && !data.find}
    <p class="sheet p-6 text-lg">
      The rack is empty. <a class="link" href="/check-in">Check the first unit in</a>, or scan its tag.
    </p>
  {:else}
    <div class="grid gap-4 md:grid-cols-2 xl:grid-cols-4">
      {#each shown.filter(({ id }) => id !== 'gone') as { id, name, empty, tags } (id)}
        <section
          aria-label={name}
          class:outline-2={over === id}
          ondragover={(event) => {
            event.preventDefault();
            over = id;
          }}
          ondragleave={() => (over = undefined)}
          ondrop={(event) => onDrop(event, id)}
        >
          <h2 class="mb-3 flex justify-between border-b-4 border-base-content pb-1 text-lg font-semibold">
            {name} <span class="figure">{tags.length}</span>
          </h2>
          <ul class="flex flex-col gap-2">
            {#each tags as facts (facts.tag)}{@render hung(facts)}{:else}<li class="py-2">{empty}</li>{/each}
          </ul>
        </section>
      {/each}
    </div>
    {@const gone = shown.find(({ id }) => id === 'gone')!}
    <details
      class="mt-6"
      open={data.find !== ''}
      ondragover={(event) => event.preventDefault()}
      ondrop={(event) => onDrop(event, 'gone')}
    >
      <summary class="min-h-11 cursor-pointer border-b-4 border-base-content py-2 text-lg font-semibold">
        Gone{data.find ? '' : ' lately'} <span class="figure">{gone.tags.length}</span>
      </summary>
      <ul class="mt-3 grid gap-2 md:grid-cols-2 xl:grid-cols-4">
        {#each gone.tags as facts (facts.tag)}{@render hung(facts)}{:else}<li class="py-2">{gone.empty}</li>{/each}
      </ul>
    </details>
  {/if}
</section>
