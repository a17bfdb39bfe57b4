import { type Assessment, type Session, unitSession } from '@refectum/core/assess';
import { type Job, standing } from '../job.ts';

/** Sessions kept warm, by unit as it is described; the oldest goes first. */
const warm = new Map<string, Session>();
const mostWarm = 8;

/** The assessment of record: the same core as in the browser. */
export function assessJobHere(job: Job): Assessment {
  const readings = standing(job);
  const meters = [...new Set([job.meter, ...readings.map((reading) => reading.meter)])].sort();
  const key = JSON.stringify([job.machine, job.complaint, meters]);
  const session = warm.get(key) ?? unitSession(job.machine, job.complaint, meters);
  warm.delete(key);
  warm.set(key, session);
  if (warm.size > mostWarm) warm.delete(warm.keys().next().value!);
  return session.assess({ ...job, readings });
}
