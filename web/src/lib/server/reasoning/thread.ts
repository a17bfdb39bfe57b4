import {
  type Assessment,
  type Session,
  unitSession,
  type VehicleAssessment,
  VehicleSession,
} from '@refectum/core/assess';
import { benchRounds, type Job, metersInUse, originOf } from '../job.ts';

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

/** The assessment of record: the same core as in the browser. */
export function assessJobHere(job: Job): Assessment {
  const { readings, background } = benchRounds(job);
  const meters = metersInUse(job, job.meter);
  const session = warmed(JSON.stringify([job.machine, job.complaint, meters, background]), () =>
    unitSession(job.machine, job.complaint, meters, background),
  );
  return session.assess({ ...job, readings });
}

/** What the vehicle's readings say of the unit, for the record. */
export function assessVehicleHere(job: Job): VehicleAssessment {
  const { vehicle, readings } = originOf(job);
  const meters = metersInUse(job, job.meter);
  const session = warmed<VehicleSession>(
    JSON.stringify(['vehicle', job.machine, job.complaint, meters, vehicle]),
    () => new VehicleSession(vehicle, job.machine, job.complaint, meters),
  );
  return session.assessVehicle({ ...job, assembly: 'parked', readings });
}
