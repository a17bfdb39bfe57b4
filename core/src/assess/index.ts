import type { JobFile } from '../record/index.ts';
import type { Assessment } from './assessment.ts';
import { unitSession } from './vehicle.ts';

export type {
  Apart,
  AssessedCourse,
  AssessedVerdict,
  Assessment,
  Diagnosis,
  JudgedReading,
  NextCheck,
  Outlook,
  Ruler,
  RulerBand,
  Suspect,
} from './assessment.ts';
export { rulerOf } from './ruler.ts';
export { type BenchSituation, engineVersion, Session, type Situation, type TapeReading } from './session.ts';
export { type Origin, unitSession, type VehicleAssessment, VehicleSession, vehicleSession } from './vehicle.ts';
export { bandsText, outcomeText } from './words.ts';

/** Everything from a job file alone: belief, next checks, verdict. */
export function assessJob(job: JobFile): Assessment {
  const readings = job.readings.filter((reading) => !reading.struck);
  const origin = job.origin && {
    vehicle: job.origin.vehicle,
    readings: job.origin.readings.filter((reading) => !reading.struck),
  };
  const session = unitSession(job.machine, job.complaint, [job.meter, ...readings.map((r) => r.meter)], origin);
  return session.assess({ ...job, readings });
}
