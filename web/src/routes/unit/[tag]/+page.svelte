<script lang="ts">
  import { outcomeText } from '@refectum/core/assess';
  import { trapAbouts } from '@refectum/core/shelf';
  import { tagFacts } from '$lib/job.ts';
  import { followBench } from '$lib/live/follow-bench.svelte.ts';
  import Anatomy from '$lib/parts/Anatomy.svelte';
  import AnyCheck from '$lib/parts/AnyCheck.svelte';
  import CheckAtHand from '$lib/parts/CheckAtHand.svelte';
  import HandsFree from '$lib/parts/HandsFree.svelte';
  import MeterAndHeat from '$lib/parts/MeterAndHeat.svelte';
  import Schools from '$lib/parts/Schools.svelte';
  import SuspectsAndTape from '$lib/parts/SuspectsAndTape.svelte';
  import Tag from '$lib/parts/Tag.svelte';
  import WorthDoing from '$lib/parts/WorthDoing.svelte';

  const { data } = $props();
  const following = followBench(() => data, 'bench');
  const bench = $derived(following.current);
  let part = $state<string>();

  const tag = $derived(data.job.tag);
  const check = $derived(bench.check);
  const earlier = $derived(check && bench.earlier.findLast((reading) => reading.check === check.id));

  $effect(() => {
    // A part touched on one unit's drawing says nothing about the next unit.
    void tag;
    part = undefined;
  });
</script>

{#snippet toVerdict()}
  {bench.outlook?.stop} <a class="link" href="/unit/{data.job.tag}/verdict">To the verdict</a>.
{/snippet}

<svelte:head><title>Tag {data.job.tag} · Refectum</title></svelte:head>

<h1 class="sr-only">Bench: tag {data.job.tag}, {data.job.model}</h1>
<div class="flex flex-wrap items-stretch gap-3 px-4 pt-3">
  <div class="min-w-72 flex-1 basis-full lg:basis-0"><Tag facts={tagFacts(bench.job)} wide /></div>
  <div class="flex flex-wrap items-end gap-2">
    <MeterAndHeat {bench} />
    <label class="flex flex-col text-sm">
      State
      <select
        class="select h-9 w-48"
        value={bench.setting.assembly}
        onchange={(e) => void bench.change({ assembly: e.currentTarget.value })}
      >
        {#each bench.subject.assemblies.filter((state) => !state.running || state.id === bench.setting.assembly) as state (state.id)}<option
            value={state.id}>{state.name}</option
          >{/each}
      </select>
    </label>
    <a class="btn h-9 px-2" href="/unit/{data.job.tag}/vehicle">Vehicle</a>
    <a class="btn h-9 px-2" href="/unit/{data.job.tag}/stand">Stand</a>
    <a class="btn h-9 px-2 btn-primary" href="/unit/{data.job.tag}/verdict">Verdict</a>
    <a class="btn h-9 px-2" href="/unit/{data.job.tag}/work">Work</a>
    <a class="btn h-9 px-2" href="/unit/{data.job.tag}/report">Report</a>
    <a class="btn h-9 px-2" href="/unit/{data.job.tag}/pictures">Pictures</a>
  </div>
</div>

<div class="workplace [--look:22rem]">
  <div class="at-hand flex flex-col gap-3">
    <CheckAtHand {bench} nulls={data.nulls}>
      {#snippet before()}
        {#if bench.outlook?.runFirst}
          <p class="mt-2 border-l-4 border-success px-3 py-1">
            Before it is taken further apart: its light is green. <a class="link" href="/unit/{tag}/stand"
              >Run it on the stand</a
            >; what it shows there may save the soldering iron.
          </p>
        {/if}
        {#if check}
          <Schools
            {bench}
            {check}
            shelved={data.shelved?.known}
            own={data.knownGood[check.id] ?? []}
            rules={data.rules}
          />
          {#if earlier}
            <p class="mt-2 border-l-4 border-info px-3 py-1">
              Before the work: <span class="figure">{outcomeText(check, earlier.outcome)}</span>
            </p>
          {/if}
        {/if}
      {/snippet}
      {#snippet done()}{@render toVerdict()}{/snippet}
    </CheckAtHand>
    <HandsFree
      {bench}
      {tag}
      simulated={data.simulated}
      supply={data.instruments.find(({ kind }) => kind === 'supply')}
      instruments={data.instruments.filter(({ kind }) => kind === 'multimeter')}
    />
    <WorthDoing {bench}>{#snippet stopped()}{@render toVerdict()}{/snippet}</WorthDoing>
  </div>

  <div class="beside">
    <div class="look flex flex-col gap-3">
      <div class="sheet p-2">
        <Anatomy
          machine={data.job.machine}
          parts={bench.diagnosis?.parts}
          {check}
          selected={part}
          onselect={(p) => (part = p)}
        />
      </div>
      <AnyCheck {bench} />
    </div>
    <SuspectsAndTape {bench} {part} />
  </div>

  <div class="more flex flex-col gap-3">
    {#if data.shelved}
      <details class="sheet px-3">
        <summary class="min-h-11 cursor-pointer py-2.5">
          On the shelf{data.shelved.warnings.length ? `: ${data.shelved.warnings.length} to take care of` : ''}
        </summary>
        <ul class="pb-2 text-sm">
          {#each data.shelved.warnings as { about, say }, i (i)}
            <li class="border-t border-base-300 py-1.5"><strong>{trapAbouts[about]}.</strong> {say}</li>
          {/each}
          <li class="border-t border-base-300 py-1.5">
            <a class="link" href="/shelf/{data.shelved.id}">All that is known of {data.shelved.known.name}</a>
          </li>
        </ul>
      </details>
    {:else if data.person.role === 'lead' && data.job.model.toLowerCase() !== 'unknown'}
      <p><a class="link" href="/shelf/new?tag={tag}">Put {data.job.model} on the shelf</a></p>
    {/if}
    {#if bench.outlook?.hidden.length}
      <section aria-label="What could still hide">
        <h2 class="font-semibold">What could still hide</h2>
        <ul class="text-sm">
          {#each bench.outlook.hidden as hidden, i (i)}<li class="py-0.5">{hidden}</li>{/each}
        </ul>
      </section>
    {/if}
  </div>
</div>
