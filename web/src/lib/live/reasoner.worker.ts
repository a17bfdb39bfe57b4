import {
  type AssessedVerdict,
  type BenchSituation,
  type Diagnosis,
  type Origin,
  type Outlook,
  type Ruler,
  rulerOf,
  type Session,
  unitSession,
  VehicleSession,
} from '@refectum/core/assess';
import type { Blame } from '@refectum/core/blame';
import type { Machine } from '@refectum/core/machines';
import { expose } from 'comlink';
import type { Place } from '../job.ts';

/** What is reasoned about: a unit on the bench, or the vehicle it came from. */
export interface Asked {
  readonly place: Place;
  readonly machine: Machine;
  readonly complaint: string;
  readonly meters: readonly string[];
  readonly origin: Origin;
}

/** What to do: on the bench with its courses, on the vehicle with where the fault lies. */
export interface PlaceOutlook extends Outlook {
  readonly verdict: AssessedVerdict | undefined;
  readonly blame: Blame | undefined;
}

let session: Session | undefined;
let known = '';
/** Counts calls, so that what is prepared while idle gives way to the next of them. */
let calls = 0;

/** Between two looks at the post. */
const sliceMilliseconds = 6;

const opened = ({ place, machine, complaint, meters, origin }: Asked): Session =>
  place === 'vehicle'
    ? new VehicleSession(origin.vehicle, machine, complaint, meters)
    : unitSession(machine, complaint, meters, origin);

/** The session for what is asked, kept while that stays the same. */
function sessionFor(asked: Asked): Session {
  const key = JSON.stringify(asked);
  if (!session || known !== key) session = opened(asked);
  known = key;
  calls++;
  return session;
}

const reasoner = {
  diagnose: (asked: Asked, situation: BenchSituation): Diagnosis => sessionFor(asked).diagnose(situation),

  outlook(asked: Asked, situation: BenchSituation): PlaceOutlook {
    const at = sessionFor(asked);
    const outlook = at.outlook(situation);
    const blame = at instanceof VehicleSession ? at.blame(situation, outlook) : undefined;
    return { ...outlook, blame, verdict: blame ? undefined : at.verdict(situation) };
  },

  ruler: (asked: Asked, check: string, situation: BenchSituation): Ruler | undefined =>
    rulerOf(sessionFor(asked), check, situation),

  /** While nobody waits: works out what the likely next checks will need, until something better comes. */
  async prepare(asked: Asked, situation: BenchSituation, likely: readonly string[]): Promise<void> {
    const steps = sessionFor(asked).prepare(situation, likely);
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
