import { familyOf } from '@refectum/core/machines';
import { readRunLog } from '../run-log.ts';
import { assessJobHere } from './assess.ts';
import { findJob } from './jobs.ts';
import { Refused } from './refused.ts';

/** Refuses to bring a unit onto the stand against a red light that nobody answers for. */
export async function needGreen(shopId: string, tag: number, assembly: string): Promise<void> {
  const job = await findJob(shopId, tag);
  const state = familyOf(job.machine).assemblies.find(({ id }) => id === assembly);
  if (!state?.running || readRunLog(job.runs, job.works.length + 1).released) return;
  const { gate } = assessJobHere(job);
  if (gate && !gate.green)
    throw new Refused(409, `Red light for tag ${tag}: ${gate.reasons.map(({ why }) => why).join(' ')}`);
}
