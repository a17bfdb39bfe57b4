import {
  assessJob,
  type Assessment,
  type Gate,
  type Session,
  unitSession,
  type VehicleAssessment,
  VehicleSession,
} from '@refectum/core/assess';
import type { JobFile } from '@refectum/core/record';
import { benchRounds, hasRested, type Job, metersInUse, originOf } from '../../job.ts';
import { vehicleLines } from '../../report.ts';
import { standLines } from './stand-lines.ts';

/** Sessions kept warm, by unit as it is described; the oldest goes first. */
const warm = new Map<string, Session>();
const mostWarm = 8;

/** Keeps what `open` makes under a name; the least lately used goes first. */
function warmed<S extends Session>(name: string, open: () => S): S {
  const session = (warm.get(name) as S | undefined) ?? open();
  warm.delete(name);
  warm.set(name, session);
  if (warm.size > mostWarm) warm.delete(warm.keys().next().value!);
  return session;
}

/** A unit's session and where it stands: the same core as in the browser. */
function atBench(job: Job) {
  const { readings, output, background } = benchRounds(job);
  const meters = metersInUse(job, job.meter);
  const session = warmed(JSON.stringify([job.machine, job.complaint, meters, background]), () =>
    unitSession(job.machine, job.complaint, meters, background),
  );
  return { session, situation: { ...job, readings, output, rested: hasRested(job.readings) } };
}

/** What the vehicle's readings say of the unit, for the record. */
export function assessVehicle(job: Job): VehicleAssessment {
  const { vehicle, readings } = originOf(job);
  const meters = metersInUse(job, job.meter);
  const session = warmed<VehicleSession>(
    JSON.stringify(['vehicle', job.machine, job.complaint, meters, vehicle]),
    () => new VehicleSession(vehicle, job.machine, job.complaint, meters),
  );
  return session.assessVehicle({ ...job, assembly: 'parked', readings });
}

/** The assessment of record. */
export function assess(job: Job): Assessment {
  const { session, situation } = atBench(job);
  return session.assess(situation);
}

/** Whether the unit may run, and nothing beside it: somebody waits at the stand. */
export function gate(job: Job): Gate | undefined {
  const { session, situation } = atBench(job);
  return session.gate(situation);
}

/** What a report says beside the job itself. */
export function report(job: Job) {
  const assessment = assess(job);
  const stand = standLines(job, assessment.windings);
  return { assessment, stand, vehicle: vehicleLines(job, assessVehicle(job)) };
}

/** From a job file that came from outside. Throws RangeError where it names what isn't known. */
export const assessFile = (file: JobFile): Assessment => assessJob(file);
