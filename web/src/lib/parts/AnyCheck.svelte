<script lang="ts">
  import { asReceived } from '@refectum/core/machines';
  import type { Bench } from '$lib/live/bench.svelte.ts';

  const { bench }: { bench: Bench } = $props();
</script>

<label class="flex flex-col">
  Any check
  <select class="select w-full truncate" value={bench.check?.id} onchange={(e) => void bench.pick(e.currentTarget.value)}>
    {#each bench.subject.assemblies as state (state.id)}
      <optgroup label={state.name}>
        {#each bench.checks.filter((c) => (c.assembly || asReceived(bench.subject.assemblies).id) === state.id) as c (c.id)}
          <option value={c.id}>{c.name}</option>
        {/each}
      </optgroup>
    {/each}
  </select>
</label>
