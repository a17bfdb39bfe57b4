<script lang="ts">
  import { enhance } from '$app/forms';
  import { dayAndTimeOf, timeOf } from '$lib/dates.ts';
  import { tagFacts } from '$lib/job.ts';
  import { watchChanges } from '$lib/live/changes.ts';
  import { refresh } from '$lib/live/refresh.ts';
  import PictureTaker from '$lib/parts/PictureTaker.svelte';
  import Tag from '$lib/parts/Tag.svelte';
  import { sends } from '$lib/sends.ts';

  const { data, form } = $props();
  const tag = $derived(data.job.tag);
  /** Why the server took nothing. */
  let away = $state('');
  const problem = $derived(away || (form && 'problem' in form ? form.problem : ''));
  const sendsHere = sends((why) => (away = why));
  const square = $derived(
    form && 'square' in form && form.square ? `data:image/svg+xml,${encodeURIComponent(form.square)}` : undefined,
  );

  $effect(() =>
    watchChanges(
      () => data.asOf,
      (changed) => {
        if (changed === tag) void refresh();
      },
      () => void refresh(),
    ),
  );
</script>

<svelte:head><title>Pictures, tag {tag} · Refectum</title></svelte:head>

<section class="flex flex-col gap-4 p-4">
  <div class="flex items-stretch gap-3">
    <div class="grow"><Tag facts={tagFacts(data.job)} wide /></div>
    <a class="btn h-auto" href="/unit/{tag}">Bench</a>
    <a class="btn h-auto" href="/unit/{tag}/report">Report</a>
  </div>
  <h1 class="text-2xl font-semibold">Pictures</h1>
  {#if problem}<p role="alert" class="border-l-4 border-error px-3 py-1 text-lg">{problem}</p>{/if}
  <div class="grid gap-4 lg:grid-cols-[20rem_minmax(0,1fr)]">
    <div class="flex flex-col gap-4">
      <PictureTaker to="/unit/{tag}/pictures/add" ontaken={() => void refresh()} />
      <div class="sheet flex flex-col gap-3 p-4">
        <h2 class="text-lg font-semibold">From a phone</h2>
        {#if square && form && 'address' in form}
          <img src={square} alt="Square code for the phone" class="w-48 self-center bg-white p-2" />
          <p class="figure text-center break-all">{form.address}</p>
          <p>For this unit alone, until {timeOf(form.until!)}. What is sent appears here by itself.</p>
        {:else if data.reachable}
          <p>The phone scans a code, or types an address; it may send pictures of this unit for ten minutes.</p>
        {:else}
          <p>No phone reaches this machine: it was started without <span class="figure">--lan</span>.</p>
        {/if}
        {#if data.reachable}
          <form method="POST" action="?/code" use:enhance={sendsHere}>
            <button class="btn w-full">{square ? 'Another code' : 'Give a phone a code'}</button>
          </form>
        {/if}
      </div>
    </div>
    <ul class="grid content-start gap-4 sm:grid-cols-2 xl:grid-cols-3">
      {#each data.pictures as { id, caption, at, technician, struck } (id)}
        <li class="sheet flex flex-col gap-1 p-2">
          <a href="/pictures/{id}" data-sveltekit-reload>
            <img
              src="/pictures/{id}?size=small"
              alt={caption || `Picture of ${dayAndTimeOf(at)}`}
              class={['h-48 w-full bg-base-200 object-contain', struck && 'opacity-40']}
            />
          </a>
          <p class:line-through={struck}>{caption || 'no words'}</p>
          <div class="flex items-center justify-between gap-2 text-sm">
            <span>{dayAndTimeOf(at)}, {technician}{struck ? ', struck out' : ''}</span>
            <form method="POST" action="?/strike" use:enhance={sendsHere}>
              <input type="hidden" name="picture" value={id} />
              <button class="min-h-8 link whitespace-nowrap" name="strike" value={struck ? 'back in' : 'out'}
                >{struck ? 'back in' : 'strike'}</button
              >
            </form>
          </div>
        </li>
      {:else}
        <li class="sheet p-6 text-lg sm:col-span-2">
          No picture yet. Burnt rings, a dark third of a stator, a gouged shaft: what the eye sees is kept here, and
          printed on the report.
        </li>
      {/each}
    </ul>
  </div>
</section>
