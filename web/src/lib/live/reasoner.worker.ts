import {
  type AssessedVerdict,
  type Background,
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
import type { Multimeter } from '@refectum/core/instruments';
import type { Machine } from '@refectum/core/machines';
import { expose } from 'comlink';
import type { Place } from '../job.ts';

/** What is reasoned about: a unit on the bench, or the vehicle it came from. */
export interface Asked {
  readonly place: Place;
  readonly machine: Machine;
  readonly complaint: string;
  /** Those that readings were or will be taken with. */
  readonly meters: readonly Multimeter[];
  readonly background: Background & { readonly origin: Origin };
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

/** Lets the post that lies there come first; a timer would idle four milliseconds each time. Several may look at once. */
const turn = new MessageChannel();
turn.port1.start();
const lookAtPost = () =>
  new Promise<void>((done) => {
    turn.port1.addEventListener('message', () => done(), { once: true });
    turn.port2.postMessage(undefined);
  });

const opened = ({ place, machine, complaint, meters, background }: Asked): Session =>
  place === 'vehicle'
    ? new VehicleSession(background.origin.vehicle, machine, complaint, meters)
    : unitSession(machine, complaint, meters, background);

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

  /** What somebody waits for, before the rest of the outlook. */
  advice: (asked: Asked, situation: BenchSituation): Pick<Outlook, 'next' | 'stop' | 'apart'> =>
    sessionFor(asked).advice(situation),

  outlook(asked: Asked, situation: BenchSituation): PlaceOutlook {
    const at = sessionFor(asked);
    const outlook = at.outlook(situation);
    const blame = at instanceof VehicleSession ? at.blame(situation, outlook) : undefined;
    return { ...outlook, blame, verdict: blame ? undefined : at.verdict(situation) };
  },

  /** `others`: meters that the shop has beside the one in hand. */
  ruler: (asked: Asked, check: string, situation: BenchSituation, others: readonly Multimeter[]): Ruler | undefined =>
    rulerOf(sessionFor(asked), check, situation, others),

  /** While nobody waits: works out what the likely next checks will need, until something better comes. */
  async prepare(asked: Asked, situation: BenchSituation, likely: readonly string[]): Promise<void> {
    const steps = sessionFor(asked).prepare(situation, likely);
    const call = calls;
    while (call === calls) {
      const until = performance.now() + sliceMilliseconds;
      do if (steps.next().done) return;
      while (performance.now() < until);
      await lookAtPost();
    }
  },
};

export type Reasoner = typeof reasoner;
expose(reasoner);
