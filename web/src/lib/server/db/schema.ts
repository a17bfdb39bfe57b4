import { sql } from 'drizzle-orm';
import type { Assessment } from '@refectum/core/assess';
import type { Teller } from '@refectum/core/belief';
import type { Outcome } from '@refectum/core/checks';
import type { Multimeter } from '@refectum/core/instruments';
import { type Machine, usualUnlikeShare, type Variant } from '@refectum/core/machines';
import type { JobFile } from '@refectum/core/record';
import type { ShelfModel } from '@refectum/core/shelf';
import type { DrainStep, Vehicle } from '@refectum/core/vehicle';
import type { Prices } from '@refectum/core/verdict';
import {
  boolean,
  customType,
  date,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  real,
  text,
  timestamp,
  unique,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import type { Place, Plate, ReadingDetail } from '../../job.ts';
import type { InstrumentKind } from '../../instruments.ts';
import type { Role, Secret } from '../../people.ts';
import { type HouseRules, usualRules } from '../../rules.ts';
import type { RunStep } from '../../run-log.ts';
import type { BenchChange } from '../../setting.ts';
import type { Stand } from '../../stands.ts';

const moment = () => timestamp({ withTimezone: true, mode: 'date' }).notNull();

/** Every root table carries the shop's id, so that several shops can live in one database. */
export const shop = pgTable('shop', {
  id: uuid().primaryKey(),
  name: text().notNull(),
  /** What stands at the top of printed reports. */
  heading: text().notNull(),
  nextTag: integer().notNull(),
  rules: jsonb().$type<HouseRules>().notNull().default(usualRules),
});

export const technician = pgTable(
  'technician',
  {
    id: uuid().primaryKey(),
    shopId: uuid()
      .notNull()
      .references(() => shop.id),
    name: text().notNull(),
    role: text().$type<Role>().notNull().default('technician'),
    /** Argon2 hashes; null where none was given. */
    pinHash: text(),
    passwordHash: text(),
    /** Whoever left stays on the tapes, and signs in no more. */
    left: boolean().notNull().default(false),
  },
  (table) => [unique().on(table.shopId, table.name)],
);

/** Somebody signed in at one browser. The id is the hash of what the browser's cookie holds. */
export const session = pgTable(
  'session',
  {
    id: text().primaryKey(),
    technicianId: uuid()
      .notNull()
      .references(() => technician.id),
    openedAt: moment(),
    expiresAt: moment(),
    /** Network address that it was opened from. */
    address: text().notNull(),
  },
  (table) => [index().on(table.technicianId)],
);

/** A wrong PIN or password, as long as it counts. */
export const wrongTry = pgTable(
  'wrong_try',
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    /** Null when there is nobody of that name. */
    technicianId: uuid().references(() => technician.id),
    secret: text().$type<Secret>().notNull(),
    address: text().notNull(),
    at: moment(),
  },
  (table) => [index().on(table.technicianId, table.at), index().on(table.address, table.at)],
);

/** A screen of the shop's own, away from the machine that serves: PINs are taken there too. */
export const benchScreen = pgTable('bench_screen', {
  /** The hash of what the screen's cookie holds. */
  id: text().primaryKey(),
  shopId: uuid()
    .notNull()
    .references(() => shop.id),
  name: text().notNull(),
  madeAt: moment(),
  technicianId: uuid()
    .notNull()
    .references(() => technician.id),
});

/** What the shop knows of a model, named once however it is capitalised. */
export const model = pgTable(
  'model',
  {
    id: uuid().primaryKey(),
    shopId: uuid()
      .notNull()
      .references(() => shop.id),
    name: text().notNull(),
    known: jsonb().$type<ShelfModel>().notNull(),
    changedAt: moment(),
    changedBy: uuid()
      .notNull()
      .references(() => technician.id),
  },
  (table) => [uniqueIndex('model_shop_name').on(table.shopId, sql`lower(${table.name})`)],
);

/** A visit of one unit. What describes unit and bench may be corrected; readings, strikes and verdicts only grow. */
export const job = pgTable(
  'job',
  {
    /** Made by the client: a check-in sent twice is one job. */
    id: uuid().primaryKey(),
    shopId: uuid()
      .notNull()
      .references(() => shop.id),
    tag: integer().notNull(),
    customer: text().notNull(),
    model: text().notNull(),
    serial: text().notNull(),
    complaint: text().notNull(),
    words: text().notNull(),
    due: date({ mode: 'string' }),
    machine: jsonb().$type<Machine>().notNull(),
    /** What else the unit carries and came with. */
    plate: jsonb().$type<Plate>().notNull().default({ direction: '', pulley: '', connector: '', cameWith: '' }),
    /** Where it stands; every change of it is a `move`. */
    stand: text().$type<Stand>().notNull().default('in'),
    assembly: text().notNull(),
    meter: text().notNull(),
    celsius: real().notNull(),
    prices: jsonb().$type<Prices>().notNull(),
    /** What else its model is built as. */
    variants: jsonb().$type<readonly Variant[]>().notNull().default([]),
    /** Of units unlike their kind, from those decided when it came in. */
    unlikeShare: real().notNull().default(usualUnlikeShare),
    /** A lead vouches for it: its readings tell what sound units of its model read. */
    knownGood: boolean().notNull().default(false),
    /** What the unit came from; null as long as nobody asked. */
    vehicle: jsonb().$type<Vehicle>(),
    checkedInAt: moment(),
    technicianId: uuid()
      .notNull()
      .references(() => technician.id),
    changedAt: moment(),
    changedBy: uuid()
      .notNull()
      .references(() => technician.id),
  },
  (table) => [
    unique().on(table.shopId, table.tag),
    index().on(table.shopId, table.stand, table.changedAt),
    index().on(table.shopId, table.customer),
    index().on(table.shopId, table.model),
    index().on(table.shopId, table.serial),
  ],
);

export const reading = pgTable(
  'reading',
  {
    /** Made by the client: a reading delivered twice is one reading. */
    id: uuid().primaryKey(),
    jobId: uuid()
      .notNull()
      .references(() => job.id),
    /** Order of arrival. */
    number: integer().generatedAlwaysAsIdentity(),
    /** Where it was taken: `bench` or `vehicle`. */
    place: text().$type<Place>().notNull().default('bench'),
    /** Who measured it: `own`, or whoever told us. */
    told: text().$type<Teller>().notNull().default('own'),
    check: text().notNull(),
    /** As typed, before it was understood. */
    typed: text().notNull(),
    outcome: jsonb().$type<Outcome>().notNull(),
    meter: text().notNull(),
    celsius: real().notNull(),
    /** As received it is the first; every work opens another. */
    round: integer().notNull().default(1),
    /** What a finding was drawn from: a table typed beside it. */
    detail: jsonb().$type<ReadingDetail>(),
    takenAt: moment(),
    technicianId: uuid()
      .notNull()
      .references(() => technician.id),
  },
  (table) => [index().on(table.jobId), index().on(table.check, table.takenAt)],
);

/** What was done to a unit: it ends a round of readings and opens the next. */
export const work = pgTable(
  'work',
  {
    /** Made by the client: a work sent twice is one. */
    id: uuid().primaryKey(),
    jobId: uuid()
      .notNull()
      .references(() => job.id),
    /** Order of arrival. */
    number: integer().generatedAlwaysAsIdentity(),
    /** Ids of the items fitted new, and of the parts mended in place. */
    fitted: jsonb().$type<readonly string[]>().notNull(),
    mended: jsonb().$type<readonly string[]>().notNull(),
    note: text().notNull(),
    doneAt: moment(),
    technicianId: uuid()
      .notNull()
      .references(() => technician.id),
  },
  (table) => [index().on(table.jobId)],
);

/** A meter of the shop's own. */
export const meter = pgTable(
  'meter',
  {
    shopId: uuid()
      .notNull()
      .references(() => shop.id),
    /** What readings name it by. */
    id: text().notNull(),
    known: jsonb().$type<Multimeter>().notNull(),
    calibratedOn: date({ mode: 'string' }),
    /** How long a calibration holds. */
    everyMonths: integer(),
    /** Taken no more; old readings still name it. */
    retired: boolean().notNull().default(false),
    changedAt: moment(),
  },
  (table) => [primaryKey({ columns: [table.shopId, table.id] })],
);

/** A change of what describes a unit and its bench, as it was asked for. */
export const change = pgTable(
  'change',
  {
    /** Made by the client: a change sent twice is one. */
    id: uuid().primaryKey(),
    jobId: uuid()
      .notNull()
      .references(() => job.id),
    asked: jsonb().$type<BenchChange>().notNull(),
    changedAt: moment(),
    technicianId: uuid()
      .notNull()
      .references(() => technician.id),
  },
  (table) => [index().on(table.jobId)],
);

/** A reading struck out; the reading stays. */
export const strike = pgTable('strike', {
  readingId: uuid()
    .primaryKey()
    .references(() => reading.id),
  struckAt: moment(),
  technicianId: uuid()
    .notNull()
    .references(() => technician.id),
});

/** A step of following a key-off drain; the log only grows. */
export const drainStep = pgTable(
  'drain_step',
  {
    /** Made by the client: a step sent twice is one. */
    id: uuid().primaryKey(),
    jobId: uuid()
      .notNull()
      .references(() => job.id),
    step: jsonb().$type<DrainStep>().notNull(),
    takenAt: moment(),
    technicianId: uuid()
      .notNull()
      .references(() => technician.id),
  },
  (table) => [index().on(table.jobId)],
);

/** A step of a session on the run stand; the log only grows. */
export const runStep = pgTable(
  'run_step',
  {
    /** Made by the client: a step sent twice is one. */
    id: uuid().primaryKey(),
    jobId: uuid()
      .notNull()
      .references(() => job.id),
    round: integer().notNull(),
    step: jsonb().$type<RunStep>().notNull(),
    takenAt: moment(),
    technicianId: uuid()
      .notNull()
      .references(() => technician.id),
  },
  (table) => [index().on(table.jobId)],
);

const bytes = customType<{ data: Buffer }>({ dataType: () => 'bytea' });

/** A picture of a unit, as JPEG without what the camera wrote into it. */
export const picture = pgTable(
  'picture',
  {
    /** Made by the client: a picture sent twice is one. */
    id: uuid().primaryKey(),
    jobId: uuid()
      .notNull()
      .references(() => job.id),
    caption: text().notNull(),
    whole: bytes().notNull(),
    small: bytes().notNull(),
    takenAt: moment(),
    technicianId: uuid()
      .notNull()
      .references(() => technician.id),
    struckAt: timestamp({ withTimezone: true, mode: 'date' }),
    struckBy: uuid().references(() => technician.id),
  },
  (table) => [index().on(table.jobId)],
);

/** Lets a phone send pictures of one unit for a while, in the name of who asked for it. */
export const pictureCode = pgTable('picture_code', {
  /** The hash of the code. */
  id: text().primaryKey(),
  jobId: uuid()
    .notNull()
    .references(() => job.id),
  technicianId: uuid()
    .notNull()
    .references(() => technician.id),
  expiresAt: moment(),
});

/** What the shop has at a network port: the only addresses that the server speaks with for it. */
export const instrument = pgTable('instrument', {
  id: uuid().primaryKey(),
  shopId: uuid()
    .notNull()
    .references(() => shop.id),
  name: text().notNull(),
  kind: text().$type<InstrumentKind>().notNull(),
  host: text().notNull(),
  port: integer().notNull(),
  /** The meter of the shop that it is, for a multimeter. */
  meter: text(),
  changedAt: moment(),
  changedBy: uuid()
    .notNull()
    .references(() => technician.id),
});

/** A unit carried from one place to another; who took it away stands in the note. */
export const move = pgTable(
  'move',
  {
    id: uuid().primaryKey(),
    jobId: uuid()
      .notNull()
      .references(() => job.id),
    from: text().$type<Stand>().notNull(),
    to: text().$type<Stand>().notNull(),
    note: text().notNull(),
    movedAt: moment(),
    technicianId: uuid()
      .notNull()
      .references(() => technician.id),
  },
  (table) => [index().on(table.jobId)],
);

/** A decision, with all it was made from, for good. */
export const verdict = pgTable(
  'verdict',
  {
    id: uuid().primaryKey(),
    jobId: uuid()
      .notNull()
      .references(() => job.id),
    course: text().notNull(),
    reason: text().notNull(),
    jobFile: jsonb().$type<JobFile>().notNull(),
    assessment: jsonb().$type<Assessment>().notNull(),
    decidedAt: moment(),
    technicianId: uuid()
      .notNull()
      .references(() => technician.id),
  },
  (table) => [index().on(table.jobId)],
);
