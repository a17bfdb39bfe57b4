import { type Assessment, type Ruler, rulerOf, Session, type Situation } from '@refectum/core/assess';
import { checkOf } from '@refectum/core/belief';
import { multimeterById } from '@refectum/core/instruments';
import type { Machine } from '@refectum/core/machines';
import { expose } from 'comlink';

let session: Session | undefined;
let unit = '';

/** The session for a unit, kept while the unit stays the same. */
function sessionFor(machine: Machine, complaint: string, meters: readonly string[]): Session {
  const key = JSON.stringify([machine, complaint, meters]);
  if (!session || unit !== key) session = new Session(machine, complaint, meters);
  unit = key;
  return session;
}

export interface Unit {
  readonly machine: Machine;
  readonly complaint: string;
  readonly meters: readonly string[];
}

const reasoner = {
  assess: ({ machine, complaint, meters }: Unit, situation: Situation): Assessment =>
    sessionFor(machine, complaint, meters).assess(situation),

  ruler: ({ machine, complaint, meters }: Unit, check: string, situation: Situation): Ruler | undefined =>
    rulerOf(sessionFor(machine, complaint, meters), check, situation),

  /** Works out beforehand what a check would show under every hypothesis, so that the reading itself is quick. */
  prepare({ machine, complaint, meters }: Unit, check: string, situation: Situation): void {
    const { opened } = sessionFor(machine, complaint, meters);
    const predictor = opened.predictor({ meter: multimeterById(situation.meter), celsius: situation.celsius });
    const wanted = checkOf(opened, check);
    for (const build of opened.builds) {
      for (const particle of opened.particles) predictor.predict(wanted, build, particle);
    }
  },
};

export type Reasoner = typeof reasoner;
expose(reasoner);
