import { asReceived, familyOf } from '@refectum/core/machines';
import type { Job } from '../job.ts';
import { mayRun, readRunLog } from '../run-log.ts';
import { findJob } from './jobs/index.ts';
import { gate } from './reasoning/index.ts';
import { Refused } from './refused.ts';

/** Refuses to bring a unit onto the stand against a red light that nobody answers for. */
export async function needGreen(shopId: string, tag: number, assembly: string): Promise<void> {
  const job = await findJob(shopId, tag);
  const state = familyOf(job.machine).assemblies.find(({ id }) => id === assembly);
  if (state?.running) await needLight(job);
}

/** Refuses to turn or load a unit that isn't clamped on the stand, or against a red light that nobody answers for. */
export async function needRelease(shopId: string, tag: number): Promise<void> {
  const job = await findJob(shopId, tag);
  const state = familyOf(job.machine).assemblies.find(({ id }) => id === job.assembly);
  if (!state?.running) throw new Refused(409, `Tag ${tag} isn’t clamped on the stand.`);
  await needLight(job);
}

/**
 * Refuses to feed what would run by it: a clamped unit against a red light, and a motor that is whole and not clamped.
 * Taken apart, or where it only generates, a supply is a test under current and needs no light.
 */
export async function needLightToFeed(shopId: string, tag: number): Promise<void> {
  const job = await findJob(shopId, tag);
  const { assemblies, drives } = familyOf(job.machine);
  const state = assemblies.find(({ id }) => id === job.assembly);
  if (state?.running) await needLight(job);
  else if (drives && state === asReceived(assemblies))
    throw new Refused(409, `Tag ${tag} isn’t clamped, and it kicks: clamp it first.`);
}

async function needLight(job: Job): Promise<void> {
  const light = await gate(job);
  const log = readRunLog(job.runs, job.works.length + 1);
  if (!light || mayRun(light, log)) return;
  const open = light.reasons.filter(({ id }) => !log.answeredFor.includes(id));
  throw new Refused(409, `Red light for tag ${job.tag}: ${open.map(({ why }) => why).join(' ')}`);
}
