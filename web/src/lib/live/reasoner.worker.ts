import {
  type AssessedVerdict,
  type BenchSituation,
  type Diagnosis,
  type Outlook,
  type Ruler,
  rulerOf,
  type Session,
  type Situation,
  unitSession,
} from '@refectum/core/assess';
import type { Machine } from '@refectum/core/machines';
import { expose } from 'comlink';

let session: Session | undefined;
let unit = '';
/** Counts calls, so that what is prepared while idle gives way to the next of them. */
let calls = 0;

/** Between two looks at the post. */
const sliceMilliseconds = 6;

/** The session for a unit, kept while the unit stays the same. */
function sessionFor(machine: Machine, complaint: string, meters: readonly string[]): Session {
  const key = JSON.stringify([machine, complaint, meters]);
  if (!session || unit !== key) session = unitSession(machine, complaint, meters);
  unit = key;
  calls++;
  return session;
}

export interface BenchOutlook extends Outlook {
  readonly verdict: AssessedVerdict;
}

export interface Unit {
  readonly machine: Machine;
  readonly complaint: string;
  readonly meters: readonly string[];
}

const reasoner = {
  diagnose: ({ machine, complaint, meters }: Unit, situation: Situation): Diagnosis =>
    sessionFor(machine, complaint, meters).diagnose(situation),

  outlook({ machine, complaint, meters }: Unit, situation: BenchSituation): BenchOutlook {
    const session = sessionFor(machine, complaint, meters);
    return { ...session.outlook(situation), verdict: session.verdict(situation) };
  },

  ruler: ({ machine, complaint, meters }: Unit, check: string, situation: Situation): Ruler | undefined =>
    rulerOf(sessionFor(machine, complaint, meters), check, situation),

  /** While nobody waits: works out what the likely next checks will need, until something better comes. */
  async prepare({ machine, complaint, meters }: Unit, situation: Situation, likely: readonly string[]): Promise<void> {
    const steps = sessionFor(machine, complaint, meters).prepare(situation, likely);
    const call = calls;
    while (call === calls) {
      const until = performance.now() + sliceMilliseconds;
      do if (steps.next().done) return;
      while (performance.now() < until);
      await new Promise((post) => setTimeout(post));
    }
  },
};

export type Reasoner = typeof reasoner;
expose(reasoner);
