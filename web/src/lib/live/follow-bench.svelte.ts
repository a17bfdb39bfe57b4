import { untrack } from 'svelte';
import type { Job, Place } from '../job.ts';
import type { Person } from '../people.ts';
import { type HouseRules, lacksOf } from '../rules.ts';
import { Bench } from './bench.svelte.ts';
import { watchChanges } from './changes.ts';
import { outbox } from './outbox.svelte.ts';
import { refresh } from './refresh.ts';

interface Served {
  /** The number of the change before it was read. */
  readonly asOf: number;
  readonly job: Job;
  readonly person: Person;
  readonly rules: HouseRules;
}

/**
 * The bench of the unit on screen, started, and kept up with the server: a new unit is a new bench, a newer word on
 * the same unit is not. To be called while a page is set up; `served` answers the page's data.
 */
export function followBench(served: () => Served, at: Place): { readonly current: Bench } {
  const id = $derived(served().job.id);
  const bench = $derived.by(() => {
    void id;
    return untrack(() => new Bench(served().job, served().person, at, lacksOf(served().rules)));
  });
  // Started once for each bench; what it reads of itself on the way is no reason to start again.
  $effect(() => {
    const started = bench;
    return untrack(() => started.start());
  });
  $effect(() => {
    const { job, person } = served();
    untrack(() => {
      bench.staff(person);
      bench.serve(job);
    });
  });
  $effect(() => {
    const again = (tag: number) => {
      if (tag === served().job.tag) void refresh();
    };
    const off = [
      watchChanges(
        () => served().asOf,
        again,
        () => void refresh(),
      ),
      outbox.onDelivered(again),
    ];
    return () => off.forEach((end) => end());
  });
  return {
    get current() {
      return bench;
    },
  };
}
