import { familyOf } from '@refectum/core/machines';
import type { Job } from '../job.ts';
import { mayRun, readRunLog } from '../run-log.ts';
import { assessJobHere } from './assess.ts';
import { findJob } from './jobs.ts';
import { Refused } from './refused.ts';

/** Refuses to bring a unit onto the stand against a red light that nobody answers for. */
export async function needGreen(shopId: string, tag: number, assembly: string): Promise<void> {
  const job = await findJob(shopId, tag);
  const state = familyOf(job.machine).assemblies.find(({ id }) => id === assembly);
  if (state?.running) needLight(job);
}

/** Refuses to turn or load a unit that isn't clamped on the stand, or against a red light that nobody answers for. */
export async function needRelease(shopId: string, tag: number): Promise<void> {
  const job = await findJob(shopId, tag);
  const state = familyOf(job.machine).assemblies.find(({ id }) => id === job.assembly);
  if (!state?.running) throw new Refused(409, `Tag ${tag} isn’t clamped on the stand.`);
  needLight(job);
}

/** Refuses to feed a unit that is clamped against a red light; at rest, a test under current needs none. */
export async function needLightWhereClamped(shopId: string, tag: number): Promise<void> {
  const { assembly } = await findJob(shopId, tag);
  await needGreen(shopId, tag, assembly);
}

function needLight(job: Job): void {
  const { gate } = assessJobHere(job);
  const log = readRunLog(job.runs, job.works.length + 1);
  if (!gate || mayRun(gate, log)) return;
  const open = gate.reasons.filter(({ id }) => !log.answeredFor.includes(id));
  throw new Refused(409, `Red light for tag ${job.tag}: ${open.map(({ why }) => why).join(' ')}`);
}
