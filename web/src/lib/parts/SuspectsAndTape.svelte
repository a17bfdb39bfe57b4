<script lang="ts">
  import type { Bench } from '$lib/live/bench.svelte.ts';
  import { outbox } from '$lib/live/outbox.svelte.ts';
  import Suspects from './Suspects.svelte';
  import Tape from './Tape.svelte';

  interface Props {
    bench: Bench;
    /** Only suspects of this part, when one is touched. */
    part?: string | undefined;
  }
  const { bench, part }: Props = $props();
  const waiting = $derived(new Set(outbox.waiting.map(({ id }) => id)));
</script>

<div class="said flex flex-col gap-3 md:max-lg:max-h-[max(34rem,calc(100vh-44rem))] lg:max-h-[calc(100vh-9rem)]">
  <div class="sheet min-h-24 flex-1 overflow-y-auto p-3">
    {#if bench.lateness.isLate}
      <p role="status" class="pb-2 text-sm">
        {bench.diagnosis ? 'This is still without the last reading or change, which' : 'What was read'} takes a moment to
        be thought through.
      </p>
    {/if}
    {#if bench.diagnosis}
      <Suspects diagnosis={bench.diagnosis} apart={bench.outlook?.apart} {part} />
    {/if}
  </div>
  <div class="sheet min-h-24 flex-1 overflow-y-auto p-3">
    <Tape
      readings={bench.readings}
      checks={bench.checks}
      diagnosis={bench.diagnosis}
      asking={bench.asking}
      {waiting}
      earlier={bench.earlier}
      onstrike={(id) => void bench.strike(id)}
      onrepeat={(id) => void bench.pick(id)}
    />
  </div>
</div>
