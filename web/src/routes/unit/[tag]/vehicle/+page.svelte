<script lang="ts">
  import type { Teller } from '@refectum/core/belief';
  import { familyOf } from '@refectum/core/machines';
  import { readDrainLog, wrongWays } from '@refectum/core/vehicle';
  import { tagFacts } from '$lib/job.ts';
  import { followBench } from '$lib/live/follow-bench.svelte.ts';
  import AnyCheck from '$lib/parts/AnyCheck.svelte';
  import Blame from '$lib/parts/Blame.svelte';
  import Cranking from '$lib/parts/Cranking.svelte';
  import CheckAtHand from '$lib/parts/CheckAtHand.svelte';
  import MeterAndHeat from '$lib/parts/MeterAndHeat.svelte';
  import SuspectsAndTape from '$lib/parts/SuspectsAndTape.svelte';
  import Tag from '$lib/parts/Tag.svelte';
  import VehicleFields from '$lib/parts/VehicleFields.svelte';
  import WorthDoing from '$lib/parts/WorthDoing.svelte';

  const { data } = $props();
  const following = followBench(() => data, 'vehicle');
  const bench = $derived(following.current);
  const drives = $derived(familyOf(data.job.machine).drives);
  const tellers: readonly { id: Teller; name: string }[] = [
    { id: 'own', name: 'We measured it' },
    { id: 'shop', name: 'Another shop told' },
    { id: 'customer', name: 'The customer told' },
  ];
</script>

{#snippet toBench()}
  {bench.outlook?.stop} <a class="link" href="/unit/{data.job.tag}">To the bench</a>, or
  <a class="link" href="/unit/{data.job.tag}/letter">the letter</a>.
{/snippet}

<svelte:head><title>Vehicle of tag {data.job.tag} · Refectum</title></svelte:head>

<h1 class="sr-only">On the vehicle: tag {data.job.tag}, {data.job.model}</h1>
<div class="flex flex-wrap items-stretch gap-3 px-4 pt-3">
  <div class="min-w-72 flex-1 basis-full lg:basis-0"><Tag facts={tagFacts(bench.job)} wide /></div>
  <div class="flex flex-wrap items-end gap-3">
    <MeterAndHeat {bench} />
    <a class="btn h-9 btn-primary" href="/unit/{data.job.tag}">Bench</a>
    <a class="btn h-9" href="/unit/{data.job.tag}/letter">Letter</a>
  </div>
</div>

<div class="workplace [--look:20rem]">
  <div class="at-hand flex flex-col gap-3">
    <CheckAtHand {bench}>
      {#snippet before()}
        <fieldset class="mt-3 flex flex-wrap gap-2">
          <legend class="sr-only">Who measured it</legend>
          {#each tellers as { id, name } (id)}
            <label class="btn min-h-11 font-normal" class:btn-primary={bench.told === id}>
              <input
                type="radio"
                name="told"
                class="sr-only"
                value={id}
                checked={bench.told === id}
                onchange={() => (bench.told = id)}
              />
              {name}
            </label>
          {/each}
        </fieldset>
      {/snippet}
      {#snippet done()}{@render toBench()}{/snippet}
    </CheckAtHand>
    <WorthDoing {bench}>{#snippet stopped()}{@render toBench()}{/snippet}</WorthDoing>
  </div>

  <div class="beside">
    <div class="look">
      {#if bench.outlook?.blame}<Blame blame={bench.outlook.blame} tag={data.job.tag} />{:else}<p
          class="sheet p-3"
          role="status"
        >
          Working out where the fault may lie…
        </p>{/if}
    </div>
    <SuspectsAndTape {bench} />
  </div>

  <div class="more flex flex-col gap-3">
    <VehicleFields {bench} ratedWatts={drives?.ratedWatts(data.job.machine)} />
    {#if drives}<Cranking {bench} machine={data.job.machine} {drives} />{/if}
    <AnyCheck {bench} />
    <p>
      <a
        class="link"
        class:font-semibold={data.job.complaint === 'drains-overnight'}
        href="/unit/{data.job.tag}/vehicle/drain">Drain, fuse by fuse</a
      >{readDrainLog(data.job.drain).conclusion ? `: ${readDrainLog(data.job.drain).conclusion}` : ''}
    </p>
    <p><a class="link" href="/sums">Sums</a>: state of charge, load test, drain, cable, belt.</p>
    <details class="sheet px-3">
      <summary class="min-h-11 cursor-pointer py-2.5">Ways that mislead, and what to do instead</summary>
      <ul class="pb-2 text-sm">
        {#each wrongWays as { id, name, why, instead } (id)}
          <li class="border-t border-base-300 py-2">
            <strong>{name}.</strong>
            {why}
            <span class="mt-1 flex flex-wrap gap-2">
              {#each instead as wanted (wanted)}
                <button class="link text-left" onclick={() => void bench.pick(wanted)}
                  >{bench.checks.find((check) => check.id === wanted)?.name}</button
                >
              {/each}
            </span>
          </li>
        {/each}
      </ul>
    </details>
  </div>
</div>
