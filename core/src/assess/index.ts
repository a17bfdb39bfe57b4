import type { OutputPoint } from '../curves/index.ts';
import { type JobFile, metersOf } from '../record/index.ts';
import type { Assessment } from './assessment.ts';
import type { Read, TapeReading } from './session.ts';
import { type PastRound, unitSession, type Work } from './vehicle.ts';

export type {
  Apart,
  AssessedCourse,
  AssessedVerdict,
  Assessment,
  Diagnosis,
  Gate,
  JudgedReading,
  NextCheck,
  Outlook,
  Ruler,
  RulerBand,
  Suspect,
  Winding,
} from './assessment.ts';
export { leadsMatter, nullFor } from './net.ts';
export { rulerOf } from './ruler.ts';
export { type BenchSituation, engineVersion, type Read, Session, type Situation, type TapeReading } from './session.ts';
export {
  type Background,
  type Origin,
  type PastRound,
  unitSession,
  type VehicleAssessment,
  VehicleSession,
  type Work,
} from './vehicle.ts';
export { type DecidedUnit, unlikeShareOf } from './unlike-share.ts';
export { bandsText, outcomeText } from './words.ts';

/** Everything from a job file alone: belief, next checks, verdict. */
export function assessJob(job: JobFile): Assessment {
  const standing = job.readings.filter((reading) => !reading.struck);
  const origin = job.origin && {
    vehicle: job.origin.vehicle,
    readings: job.origin.readings.filter((reading) => !reading.struck),
  };
  const works = job.works ?? [];
  // A point that names no round belongs to the open one.
  const output = (job.output ?? []).map((point) => ({ ...point, round: point.round ?? works.length + 1 }));
  const { open, past } = roundsOf(standing, output, works);
  const background = { origin, past, variants: job.variants, unlikeShare: job.unlikeShare };
  return unitSession(job.machine, job.complaint, metersOf(job), background).assess({ ...job, ...open });
}

interface InRound {
  /** The first when it isn't said. */
  readonly round?: number | undefined;
}

/** What was read in the round that is open, and the rounds before it; each work ends one. */
export function roundsOf(
  standing: readonly (TapeReading & InRound)[],
  output: readonly (OutputPoint & InRound)[],
  works: readonly Work[],
): { readonly open: Read; readonly past: readonly PastRound[] } {
  const of = (n: number): Read => ({
    readings: standing.filter(({ round = 1 }) => round === n),
    output: output.filter(({ round = 1 }) => round === n),
  });
  return { open: of(works.length + 1), past: works.map((work, i) => ({ ...of(i + 1), work })) };
}
