<script lang="ts">
  import { asReceived } from '@refectum/core/machines';
  import type { Bench } from '$lib/live/bench.svelte.ts';

  const { bench }: { bench: Bench } = $props();
</script>

<label class="flex flex-col">
  Any check
  <span class="relative">
    <select
      class="select w-full bg-none"
      value={bench.check?.id}
      onchange={(e) => void bench.pick(e.currentTarget.value)}
    >
      {#each bench.subject.assemblies as state (state.id)}
        <optgroup label={state.name}>
          {#each bench.checks.filter((c) => (c.assembly || asReceived(bench.subject.assemblies).id) === state.id) as c (c.id)}
            <option value={c.id}>{c.name}</option>
          {/each}
        </optgroup>
      {/each}
    </select>
    <!-- A long name ends before the arrow. -->
    <span
      aria-hidden="true"
      class="pointer-events-none absolute inset-y-px end-px grid w-8 place-items-center rounded-e-(--radius-field) bg-base-100"
    >
      <svg viewBox="0 0 10 5" class="h-1.5 w-2.5 fill-current"><path d="M0 0h10l-5 5z" /></svg>
    </span>
  </span>
</label>
