<script lang="ts">
  import { asReceived, familyOf } from '@refectum/core/machines';
  import { tagFacts } from '$lib/job.ts';
  import { followBench } from '$lib/live/follow-bench.svelte.ts';
  import { RunStand } from '$lib/live/run-stand.svelte.ts';
  import GeneratorStand from '$lib/parts/GeneratorStand.svelte';
  import MeterAndHeat from '$lib/parts/MeterAndHeat.svelte';
  import StandGate from '$lib/parts/StandGate.svelte';
  import StarterBench from '$lib/parts/StarterBench.svelte';
  import Tag from '$lib/parts/Tag.svelte';

  const { data } = $props();
  const following = followBench(() => data, 'bench');
  const bench = $derived(following.current);
  const stand = new RunStand(
    () => data.job,
    () => data.person,
    () => bench.round,
  );
  const tag = $derived(data.job.tag);
  const machine = $derived(data.job.machine);
  const states = $derived(bench.subject.assemblies);
  const running = $derived(states.find((state) => state.running)!);
  const mounted = $derived(bench.setting.assembly === running.id);
  const family = $derived(familyOf(machine));
</script>

{#snippet toVerdict()}
  {bench.outlook?.stop} <a class="link" href="/unit/{tag}/verdict">To the verdict</a>.
{/snippet}

{#snippet light()}
  {#if bench.diagnosis?.gate}
    <StandGate
      gate={bench.diagnosis.gate}
      {stand}
      {tag}
      {mounted}
      said={family.drives
        ? { there: 'It is clamped, battery and eyes covered', off: 'Battery off, out of the clamp' }
        : { there: 'It is clamped on the stand, belt and guard on', off: 'Off the stand' }}
      onmount={() => void bench.change({ assembly: running.id })}
      onunmount={() => void bench.change({ assembly: asReceived(states).id })}
    />
  {:else}
    <p class="sheet p-3" role="status">Looking at what was read…</p>
  {/if}
{/snippet}

<svelte:head><title>{family.drives ? 'Starter bench' : 'Run stand'}, tag {tag} · Refectum</title></svelte:head>

<h1 class="sr-only">{family.drives ? 'Starter bench' : 'Run stand'}: tag {tag}, {data.job.model}</h1>
<div class="flex flex-wrap items-stretch gap-3 px-4 pt-3">
  <div class="min-w-72 flex-1 basis-full lg:basis-0"><Tag facts={tagFacts(bench.job)} wide /></div>
  <div class="flex flex-wrap items-end gap-2">
    <MeterAndHeat {bench} />
    <a class="btn h-9 px-2.5" href="/unit/{tag}">Bench</a>
    <a class="btn h-9 px-2.5 btn-primary" href="/unit/{tag}/verdict">Verdict</a>
    <a class="btn h-9 px-2.5" href="/unit/{tag}/report">Report</a>
  </div>
</div>

{#if family.generates}
  <GeneratorStand {data} {bench} {stand} generates={family.generates} {running} {mounted} {light} done={toVerdict} />
{:else if family.drives}
  <StarterBench {data} {bench} drives={family.drives} {running} {mounted} {light} done={toVerdict} />
{/if}
