import { type JobFile, metersOf } from '../record/index.ts';
import type { Assessment } from './assessment.ts';
import type { TapeReading } from './session.ts';
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
export { type BenchSituation, engineVersion, Session, type Situation, type TapeReading } from './session.ts';
export {
  type Background,
  type Origin,
  type PastRound,
  unitSession,
  type VehicleAssessment,
  VehicleSession,
  type Work,
} from './vehicle.ts';
export { bandsText, outcomeText } from './words.ts';

/** Everything from a job file alone: belief, next checks, verdict. */
export function assessJob(job: JobFile): Assessment {
  const standing = job.readings.filter((reading) => !reading.struck);
  const origin = job.origin && {
    vehicle: job.origin.vehicle,
    readings: job.origin.readings.filter((reading) => !reading.struck),
  };
  const works = job.works ?? [];
  const { readings, past } = roundsOf(standing, works);
  const background = { origin, past, variants: job.variants };
  return unitSession(job.machine, job.complaint, metersOf(job), background).assess({ ...job, readings });
}

/** The readings of the round that is open, and the rounds before it; each work ends one. */
export function roundsOf<R extends TapeReading & { readonly round?: number | undefined }>(
  standing: readonly R[],
  works: readonly Work[],
): { readonly readings: readonly R[]; readonly past: readonly PastRound[] } {
  const ofRound = (n: number) => standing.filter(({ round = 1 }) => round === n);
  return {
    readings: ofRound(works.length + 1),
    past: works.map((work, i) => ({ readings: ofRound(i + 1), work })),
  };
}
