import type { Assessment } from '@refectum/core/assess';
import { type CourseId } from '@refectum/core/verdict';
import type { Teller } from '@refectum/core/belief';
import { type Check, mayShow } from '@refectum/core/checks';
import { asReceived, familyOf, type Machine, subjectOf, type Variant } from '@refectum/core/machines';
import { buildsOf, pricesOf, type ShelfModel } from '@refectum/core/shelf';
import { type DrainEntry, vehicleSubject } from '@refectum/core/vehicle';
import type { JobFile } from '@refectum/core/record';
import { randomUUID } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import { and, asc, eq, sql } from 'drizzle-orm';
import {
  type Job,
  type Place,
  type Plate,
  type ReadingDetail,
  type TakenReading,
  type TakenWork,
  vehicleOf,
} from '../job.ts';
import { database, type Queryable } from './db/connect.ts';
import { drainStep, job, move, reading, runStep, shop, strike, technician, verdict, work } from './db/schema.ts';
import { announce } from './live.ts';
import { metersOf, needMeter } from './meters.ts';
import { Refused } from './refused.ts';
import { modelNamed } from './shelf.ts';
import { unlikeIn } from './unlike-share.ts';
import type { TakenRunStep } from '../run-log.ts';
import type { Stand } from '../stands.ts';

type JobRow = typeof job.$inferSelect;

export async function findJob(shopId: string, tag: number): Promise<Job> {
  const db = database();
  return complete(db, await needJob(db, shopId, tag));
}

async function needJob(db: Queryable, shopId: string, tag: number, lock = false): Promise<JobRow> {
  const query = db
    .select()
    .from(job)
    .where(and(eq(job.shopId, shopId), eq(job.tag, tag)));
  const [row] = await (lock ? query.for('update') : query);
  if (!row) throw new Refused(404, `There is no tag ${tag} in this shop.`);
  return row;
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

export interface CheckIn {
  readonly id: string;
  readonly customer: string;
  readonly model: string;
  readonly serial: string;
  readonly complaint: string;
  readonly words: string;
  readonly due: string;
  readonly machine: Machine;
  readonly plate?: Plate;
}

/** As it is kept: what isn't known is left out. */
const plain = (machine: Machine): unknown => JSON.parse(JSON.stringify(machine));

/** The shelf's other builds of a model with variants than the one that was chosen. */
const variantsOf = (shelved: ShelfModel | undefined, machine: Machine): readonly Variant[] =>
  shelved?.variants.length
    ? buildsOf(shelved).filter((build) => !isDeepStrictEqual(plain(build.machine), plain(machine)))
    : [];

/** Takes a unit in under the shop's next tag number. Sent twice under one id it is one job. */
export async function checkIn(
  shopId: string,
  technicianId: string,
  entry: CheckIn,
  meter = 'workshop',
): Promise<number> {
  return database().transaction(async (db) => {
    const [before] = await db.select().from(job).where(eq(job.id, entry.id));
    if (before) return before.tag;
    const [numbered] = await db
      .update(shop)
      .set({ nextTag: sql`${shop.nextTag} + 1` })
      .where(eq(shop.id, shopId))
      .returning({ next: shop.nextTag });
    const tag = numbered!.next - 1;
    const shelved = await modelNamed(shopId, entry.model, db);
    const now = new Date();
    await db.insert(job).values({
      ...entry,
      due: entry.due || null,
      shopId,
      tag,
      assembly: asReceived(familyOf(entry.machine).assemblies).id,
      meter,
      celsius: 20,
      prices: shelved ? pricesOf(shelved) : { items: {} },
      variants: variantsOf(shelved, entry.machine),
      unlikeShare: (await unlikeIn(shopId, db)).unlikeShare,
      checkedInAt: now,
      technicianId,
      changedAt: now,
      changedBy: technicianId,
    });
    await announce(db, tag);
    return tag;
  });
}

export interface ReadingEntry {
  readonly id: string;
  readonly place: Place;
  readonly told: Teller;
  readonly check: string;
  readonly typed: string;
  readonly outcome: typeof reading.$inferInsert.outcome;
  readonly meter: string;
  readonly celsius: number;
  readonly round?: number;
  readonly detail?: ReadingDetail | undefined;
  readonly at: string;
  readonly technician: string;
}

const checksAt = (place: Place, { machine, vehicle, complaint }: JobRow): readonly Check[] =>
  place === 'bench'
    ? subjectOf(machine).checks
    : vehicleSubject(vehicleOf({ machine, vehicle }), machine, complaint).subject.checks;

/** The check that a reading is of; refused when the unit or its vehicle has none such, or none with such a result. */
function checkFor(row: JobRow, { place, told, check: id, outcome }: ReadingEntry): Check {
  const check = checksAt(place, row).find((c) => c.id === id);
  if (!check)
    throw new Refused(422, `This ${place === 'bench' ? 'unit' : 'vehicle'} has no check “${id}”: reload the page.`);
  if (place === 'bench' && told !== 'own')
    throw new Refused(422, 'On the bench we measure ourselves: only readings on the vehicle are told.');
  if (!mayShow(check, outcome)) throw new Refused(422, `“${check.name}” can’t have that result.`);
  return check;
}

/** Only work opens a round: a reading of one beyond would stand nowhere. */
async function needRound(db: Queryable, jobId: string, round: number): Promise<void> {
  const works = await db.$count(work, eq(work.jobId, jobId));
  if (round > works + 1) throw new Refused(422, `Round ${round} follows no work: this unit is in round ${works + 1}.`);
}

/** Adds a reading; the same id twice is one reading. */
export async function addReading(shopId: string, tag: number, entry: ReadingEntry): Promise<void> {
  await database().transaction(async (db) => {
    const row = await needJob(db, shopId, tag, true);
    const check = checkFor(row, entry);
    await needMeter(shopId, entry.meter, db);
    await needRound(db, row.id, entry.round ?? 1);
    await db
      .insert(reading)
      .values({
        id: entry.id,
        jobId: row.id,
        place: entry.place,
        told: entry.told,
        check: entry.check,
        typed: entry.typed,
        outcome: entry.outcome,
        meter: entry.meter,
        celsius: entry.celsius,
        round: entry.place === 'bench' ? (entry.round ?? 1) : 1,
        detail: entry.detail,
        takenAt: new Date(entry.at),
        technicianId: entry.technician,
      })
      .onConflictDoNothing();
    const assembly = (entry.place === 'bench' && check.assembly) || row.assembly;
    await db.update(job).set({ assembly, meter: entry.meter }).where(eq(job.id, row.id));
    // What is measured on stands on the bench.
    if (entry.place === 'bench' && row.stand === 'in')
      await carry(db, row, { id: randomUUID(), to: 'bench', note: 'first reading', technician: entry.technician });
    await announce(db, tag);
  });
}

export interface MoveEntry {
  readonly id: string;
  readonly to: Stand;
  readonly note: string;
  readonly technician: string;
}

async function carry(db: Queryable, row: JobRow, { id, to, note, technician: by }: MoveEntry): Promise<void> {
  const now = new Date();
  await db.insert(move).values({ id, jobId: row.id, from: row.stand, to, note, movedAt: now, technicianId: by });
  await db.update(job).set({ stand: to, changedAt: now, changedBy: by }).where(eq(job.id, row.id));
}

/** Carries a unit to where it stands from now on; sent twice is once. Any move can be taken back by another. */
export async function moveJob(shopId: string, tag: number, entry: MoveEntry): Promise<void> {
  await database().transaction(async (db) => {
    const row = await needJob(db, shopId, tag, true);
    const [before] = await db.select({ id: move.id }).from(move).where(eq(move.id, entry.id));
    if (before || row.stand === entry.to) return;
    const [decided] = await db.select({ id: verdict.id }).from(verdict).where(eq(verdict.jobId, row.id)).limit(1);
    if (entry.to === 'ready' && !decided)
      throw new Refused(409, `Tag ${tag} has no verdict yet: decide on the verdict sheet, then it is ready.`);
    if (entry.to === 'gone' && !entry.note)
      throw new Refused(422, `Say who took tag ${tag} away: without a hand-over it stays on the rack.`);
    await carry(db, row, entry);
    await announce(db, tag);
  });
}

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

/** Adds what was done; the unit is put together again, and the next round begins. The same id twice is one work. */
export async function addWork(
  shopId: string,
  tag: number,
  entry: Omit<TakenWork, 'technician'> & { readonly technician: string },
): Promise<void> {
  await database().transaction(async (db) => {
    const row = await needJob(db, shopId, tag, true);
    const { items, parts, faults } = subjectOf(row.machine);
    const strange = [
      ...entry.fitted.filter((id) => !items.some((item) => item.id === id)),
      ...entry.mended.filter((id) => !faults.some(({ part, repair }) => part === id && repair)),
    ];
    if (strange.length)
      throw new Refused(
        422,
        `This unit has no ${strange.map((id) => parts.find((p) => p.id === id)?.name ?? id).join(', ')} to fit or mend so.`,
      );
    await db
      .insert(work)
      .values({
        id: entry.id,
        jobId: row.id,
        fitted: entry.fitted,
        mended: entry.mended,
        note: entry.note,
        doneAt: new Date(entry.at),
        technicianId: entry.technician,
      })
      .onConflictDoNothing();
    await db
      .update(job)
      .set({
        assembly: asReceived(familyOf(row.machine).assemblies).id,
        changedAt: new Date(),
        changedBy: entry.technician,
      })
      .where(eq(job.id, row.id));
    await announce(db, tag);
  });
}

/** Strikes a reading out; twice is once. */
export async function strikeReading(
  shopId: string,
  tag: number,
  entry: { reading: string; at: string; technician: string },
): Promise<void> {
  await database().transaction(async (db) => {
    const row = await needJob(db, shopId, tag);
    const [own] = await db
      .select()
      .from(reading)
      .where(and(eq(reading.id, entry.reading), eq(reading.jobId, row.id)));
    if (!own) throw new Refused(404, 'That reading is not on this unit’s tape.');
    await db
      .insert(strike)
      .values({ readingId: entry.reading, struckAt: new Date(entry.at), technicianId: entry.technician })
      .onConflictDoNothing();
    await announce(db, tag);
  });
}

export type BenchChange = Partial<Pick<JobRow, 'assembly' | 'meter' | 'celsius' | 'prices' | 'vehicle' | 'knownGood'>>;

/** Changes what describes the bench or the prices. */
export async function changeJob(shopId: string, tag: number, technicianId: string, change: BenchChange): Promise<void> {
  await database().transaction(async (db) => {
    const row = await needJob(db, shopId, tag, true);
    if (change.meter !== undefined) await needMeter(shopId, change.meter, db);
    const states = familyOf(row.machine).assemblies.map((state) => state.id);
    if (change.assembly !== undefined && !states.includes(change.assembly)) {
      throw new Refused(422, `“${change.assembly}” is no state of assembly: one of ${states.join(', ')}.`);
    }
    await db
      .update(job)
      .set({ ...change, changedAt: new Date(), changedBy: technicianId })
      .where(eq(job.id, row.id));
    await announce(db, tag);
  });
}

/** Keeps a decision with the file and the assessment it was made from, for good. */
export async function addVerdict(
  shopId: string,
  tag: number,
  entry: { id: string; course: CourseId; reason: string; technician: string },
  made: { jobFile: JobFile; assessment: Assessment },
): Promise<void> {
  await database().transaction(async (db) => {
    const row = await needJob(db, shopId, tag, true);
    await db
      .insert(verdict)
      .values({
        id: entry.id,
        jobId: row.id,
        course: entry.course,
        reason: entry.reason,
        ...made,
        decidedAt: new Date(),
        technicianId: entry.technician,
      })
      .onConflictDoNothing();
    await announce(db, tag);
  });
}
