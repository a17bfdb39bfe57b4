import { type DrainStep, outputCable, readDrainLog } from '@refectum/core/vehicle';
import { parseQuantity } from '@refectum/core/quantity';
import type { Job, TakenDrainStep } from '../job.ts';
import type { Person } from '../people.ts';
import { once } from './once.ts';
import { freshId, outbox } from './outbox.svelte.ts';
import { drainSent, readingsSent } from './sent.ts';

/** The drain of the vehicle on screen, followed fuse by fuse: what the server knows, and what is on its way there. */
export class DrainHunt {
  #job: () => Job;
  #person: () => Person;
  circuit = $state('');
  amps = $state('');
  leftOut = $state(false);
  problem = $state('');
  #steps = $derived.by(() => drainSent(this.#job()));
  #log = $derived(readDrainLog(this.#steps));

  constructor(job: () => Job, person: () => Person) {
    this.#job = job;
    this.#person = person;
  }

  get steps(): readonly TakenDrainStep[] {
    return this.#steps;
  }
  get log(): ReturnType<typeof readDrainLog> {
    return this.#log;
  }
  isStruck(id: string): boolean {
    return this.#steps.some(({ step }) => step.kind === 'struck' && step.step === id);
  }

  shut(): Promise<void> {
    return this.#add({ kind: 'shut' });
  }

  /** Takes what was typed: with a circuit its share, without one the drain as it is. */
  record(): boolean {
    const read = parseQuantity(this.amps, 'amps');
    const circuit = this.circuit.trim();
    if (read.kind !== 'value' || read.value < 0)
      this.problem = read.kind === 'refused' ? read.message : 'A drain is a number of at least 0, like 0.42 or 420m.';
    else if (circuit && this.#log.total === undefined)
      this.problem = 'First the drain with everything in: leave the circuit empty and type the amps.';
    else {
      const { leftOut } = this;
      void this.#add(circuit ? { kind: 'out', circuit, amps: read.value, leftOut } : { kind: 'now', amps: read.value });
      this.circuit = this.amps = '';
      this.leftOut = false;
      return true;
    }
    return false;
  }

  strike(step: string): Promise<void> {
    return this.#add({ kind: 'struck', step });
  }

  /** The readings on the vehicle that this log amounts to, each by its check. */
  get readings(): readonly { readonly check: string; readonly amps: number }[] {
    const { total, shares } = this.#log;
    const cable = shares.findLast(({ circuit }) => circuit === outputCable);
    const without = this.#steps.find(({ id }) => id === cable?.id)?.step;
    return [
      ...(total === undefined ? [] : [{ check: 'drain', amps: total }]),
      ...(without?.kind === 'out' ? [{ check: 'drain-cable-off', amps: without.amps }] : []),
    ].filter(({ check, amps }) => !this.#isRead(check, amps));
  }

  /** Puts them on the vehicle's tape, where they count as evidence. */
  readonly takeAsReadings = once(async () => {
    const { tag, meter, celsius } = this.#job();
    for (const { check, amps } of this.readings) {
      const id = freshId();
      const outcome = { kind: 'value', value: amps };
      const at = new Date().toISOString();
      const body = { id, place: 'vehicle', told: 'own', check, typed: String(amps), outcome, meter, celsius, at };
      await outbox.send(this.#person(), { id, tag, method: 'POST', path: `/api/jobs/${tag}/readings`, body });
    }
  });

  #isRead(check: string, amps: number): boolean {
    return readingsSent(this.#job()).some(
      ({ check: read, outcome, struck }) =>
        read === check && outcome.kind === 'value' && outcome.value === amps && !struck,
    );
  }

  async #add(step: DrainStep): Promise<void> {
    this.problem = '';
    const { tag } = this.#job();
    const id = freshId();
    const body = { id, at: new Date().toISOString(), step };
    await outbox.send(this.#person(), { id, tag, method: 'POST', path: `/api/jobs/${tag}/drain`, body });
  }
}
