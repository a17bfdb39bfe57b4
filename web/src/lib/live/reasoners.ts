import { type Remote, wrap } from 'comlink';
import type { Place } from '../job.ts';
import type { Reasoner } from './reasoner.worker.ts';

interface Running {
  readonly worker: Worker;
  readonly reasoner: Remote<Reasoner>;
}

/** Of the newest unit that was on screen, what was worked out of it included: bench, stand and verdict share it. */
let running: { readonly tag: number; readonly at: Map<Place, Running> } = { tag: 0, at: new Map() };

/** What reasons about a unit, on the bench or on its vehicle; it outlives the page that asked first. */
export function reasonerFor(tag: number, place: Place): Remote<Reasoner> {
  if (running.tag !== tag) {
    for (const { worker } of running.at.values()) worker.terminate();
    running = { tag, at: new Map() };
  }
  const { at } = running;
  const found = at.get(place) ?? begin();
  // One whose script didn't come, the server away, is begun anew by the next page.
  found.worker.onerror = () => at.delete(place);
  at.set(place, found);
  return found.reasoner;
}

function begin(): Running {
  const worker = new Worker(new URL('./reasoner.worker.ts', import.meta.url), { type: 'module' });
  return { worker, reasoner: wrap<Reasoner>(worker) };
}
