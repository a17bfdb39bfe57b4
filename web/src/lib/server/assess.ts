import {
  type Assessment,
  type Session,
  unitSession,
  type VehicleAssessment,
  type VehicleSession,
  vehicleSession,
} from '@refectum/core/assess';
import { type Job, originOf, type Place, standing } from '../job.ts';

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

const metersOf = (job: Job, place: Place): string[] =>
  [...new Set([job.meter, ...standing(job, place).map((reading) => reading.meter)])].sort();

/** The assessment of record: the same core as in the browser. */
export function assessJobHere(job: Job): Assessment {
  const origin = originOf(job);
  const meters = metersOf(job, 'bench');
  const session = warmed(JSON.stringify([job.machine, job.complaint, meters, origin]), () =>
    unitSession(job.machine, job.complaint, meters, origin),
  );
  return session.assess({ ...job, readings: standing(job, 'bench') });
}

/** What the vehicle's readings say of the unit, for the record. */
export function assessVehicleHere(job: Job): VehicleAssessment {
  const origin = originOf(job);
  const meters = metersOf(job, 'vehicle');
  const session = warmed<VehicleSession>(
    JSON.stringify(['vehicle', job.machine, job.complaint, meters, origin.vehicle]),
    () => vehicleSession(job.machine, job.complaint, meters, origin),
  );
  return session.assessVehicle({ ...job, assembly: 'parked', readings: origin.readings });
}
