import { type CourseId } from '@refectum/core/verdict';
import { asc, eq } from 'drizzle-orm';
import type { Job, TakenReading } from '../../job.ts';
import { database, type Queryable } from '../db/connect.ts';
import { drainStep, move, reading, runStep, strike, technician, verdict, work } from '../db/schema.ts';
import { metersOf } from '../meters.ts';
import { type JobRow, needJob } from './row.ts';

export async function findJob(shopId: string, tag: number): Promise<Job> {
  const db = database();
  return complete(db, await needJob(db, shopId, tag));
}

async function complete(db: Queryable, row: JobRow): Promise<Job> {
  const [people, readings, verdicts, moves, drain, runs, works, meters] = await Promise.all([
    db.select().from(technician).where(eq(technician.shopId, row.shopId)),
    db
      .select({ reading, strike })
      .from(reading)
      .leftJoin(strike, eq(strike.readingId, reading.id))
      .where(eq(reading.jobId, row.id))
      .orderBy(asc(reading.number)),
    db.select().from(verdict).where(eq(verdict.jobId, row.id)).orderBy(asc(verdict.decidedAt)),
    db.select().from(move).where(eq(move.jobId, row.id)).orderBy(asc(move.movedAt)),
    db.select().from(drainStep).where(eq(drainStep.jobId, row.id)).orderBy(asc(drainStep.takenAt)),
    db.select().from(runStep).where(eq(runStep.jobId, row.id)).orderBy(asc(runStep.takenAt)),
    db.select().from(work).where(eq(work.jobId, row.id)).orderBy(asc(work.number)),
    metersOf(row.shopId, db),
  ]);
  const name = (id: string) => people.find((person) => person.id === id)?.name ?? 'unknown';
  return {
    id: row.id,
    tag: row.tag,
    customer: row.customer,
    model: row.model,
    serial: row.serial,
    complaint: row.complaint,
    words: row.words,
    due: row.due,
    machine: row.machine,
    plate: row.plate,
    stand: row.stand,
    assembly: row.assembly,
    meter: row.meter,
    celsius: row.celsius,
    prices: row.prices,
    vehicle: row.vehicle,
    variants: row.variants,
    unlikeShare: row.unlikeShare,
    knownGood: row.knownGood,
    meters,
    works: works.map(({ id, fitted, mended, note, doneAt, technicianId }) => ({
      id,
      fitted,
      mended,
      note,
      at: doneAt.toISOString(),
      technician: name(technicianId),
    })),
    checkedInAt: row.checkedInAt.toISOString(),
    technician: name(row.technicianId),
    readings: readings.map(({ reading: r, strike: s }): TakenReading => ({
      id: r.id,
      place: r.place,
      told: r.told,
      check: r.check,
      typed: r.typed,
      outcome: r.outcome,
      meter: r.meter,
      celsius: r.celsius,
      at: r.takenAt.toISOString(),
      technician: name(r.technicianId),
      round: r.round,
      ...(r.detail ? { detail: r.detail } : {}),
      ...(s ? { struck: { at: s.struckAt.toISOString(), technician: name(s.technicianId) } } : {}),
    })),
    verdicts: verdicts.map((v) => ({
      id: v.id,
      course: v.course as CourseId,
      reason: v.reason,
      advised: v.assessment.verdict.recommended,
      barred: v.assessment.verdict.courses.find(({ id }) => id === v.course)?.barred,
      engine: v.assessment.engine,
      at: v.decidedAt.toISOString(),
      technician: name(v.technicianId),
    })),
    moves: moves.map(({ from, to, note, movedAt, technicianId }) => ({
      from,
      to,
      note,
      at: movedAt.toISOString(),
      technician: name(technicianId),
    })),
    drain: drain.map(({ id, step, takenAt, technicianId }) => ({
      id,
      step,
      at: takenAt.toISOString(),
      technician: name(technicianId),
    })),
    runs: runs.map(({ id, step, round, takenAt, technicianId }) => ({
      id,
      step,
      round,
      at: takenAt.toISOString(),
      technician: name(technicianId),
    })),
  };
}
