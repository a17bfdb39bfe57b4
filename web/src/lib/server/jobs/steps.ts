import type { DrainEntry } from '@refectum/core/vehicle';
import type { TakenRunStep } from '../../run-log.ts';
import { database } from '../db/connect.ts';
import { drainStep, runStep } from '../db/schema.ts';
import { announce } from '../live.ts';
import { needJob } from './row.ts';

/** Adds a step to the drain's log; the same id twice is one step. */
export async function addDrainStep(
  shopId: string,
  tag: number,
  { id, at, step, technician: by }: DrainEntry & { readonly technician: string },
): Promise<void> {
  await database().transaction(async (db) => {
    const row = await needJob(db, shopId, tag, true);
    await db
      .insert(drainStep)
      .values({ id, jobId: row.id, step, takenAt: new Date(at), technicianId: by })
      .onConflictDoNothing();
    await announce(db, tag);
  });
}

/** Adds a step to the run stand's log; the same id twice is one step. */
export async function addRunStep(
  shopId: string,
  tag: number,
  { id, at, round, step, technician: by }: TakenRunStep,
): Promise<void> {
  await database().transaction(async (db) => {
    const row = await needJob(db, shopId, tag, true);
    await db
      .insert(runStep)
      .values({ id, jobId: row.id, round, step, takenAt: new Date(at), technicianId: by })
      .onConflictDoNothing();
    await announce(db, tag);
  });
}
