import { randomUUID } from 'node:crypto';
import { unitSession } from '@refectum/core/assess';
import { type Case, checkOf, fromScale } from '@refectum/core/belief';
import { findingsOf, type Outcome } from '@refectum/core/checks';
import { multimeterById, rangeFor, rangesOf, runRanges } from '@refectum/core/instruments';
import { addDays, addMinutes, formatISO, subMinutes } from 'date-fns';
import { eq } from 'drizzle-orm';
import sharp from 'sharp';
import { assess } from '../reasoning/index.ts';
import { database } from '../db/connect.ts';
import { job, shop, technician } from '../db/schema.ts';
import { jobFileOf } from '../job-file.ts';
import {
  addDrainStep,
  addReading,
  addRunStep,
  addVerdict,
  changeJob,
  checkIn,
  findJob,
  moveJob,
} from '../jobs/index.ts';
import { usualRules } from '../../rules.ts';
import { hashOf } from '../people/secrets.ts';
import { importModels } from '../shelf.ts';
import { addPicture } from '../pictures.ts';
import { ensureShop, forgetShop } from '../shop.ts';
import { demoDrawings } from './drawings.ts';
import { demoShelf } from './shelf.ts';
import { demoShop } from './shop.ts';
import { type DemoUnit, demoUnits } from './units.ts';

/** Fills an empty shop with the demo; a shop that has jobs is left alone. */
export async function loadDemo(): Promise<void> {
  const { id: shopId } = await ensureShop();
  const db = database();
  const [any] = await db.select({ id: job.id }).from(job).limit(1);
  if (any) return;
  const people = await Promise.all(
    demoShop.people.map(async ({ name, role, pin, password }) => ({
      id: randomUUID(),
      shopId,
      name,
      role,
      pinHash: await hashOf(pin),
      passwordHash: password ? await hashOf(password) : null,
    })),
  );
  const workers = people.filter(({ role }) => role !== 'viewer');
  await db.transaction(async (tx) => {
    const rules = { ...usualRules, stand: demoShop.stand };
    await tx.update(shop).set({ name: demoShop.name, heading: demoShop.heading, rules }).where(eq(shop.id, shopId));
    await tx.insert(technician).values(people);
  });
  forgetShop();
  await importModels(shopId, people.find(({ role }) => role === 'lead')!.id, demoShelf);
  const now = new Date();
  for (const [i, unit] of demoUnits.entries()) {
    await loadUnit(shopId, workers[i % workers.length]!.id, unit, subMinutes(now, 60 * (demoUnits.length - i)));
  }
}

const typedAs = (outcome: Outcome): string =>
  outcome.kind === 'value' ? String(outcome.value) : outcome.kind === 'finding' ? outcome.finding : 'OL';

async function loadUnit(shopId: string, by: string, unit: DemoUnit, start: Date): Promise<void> {
  const due = formatISO(addDays(start, unit.dueInDays), { representation: 'date' });
  const tag = await checkIn(shopId, by, { ...unit, id: randomUUID(), due }, unit.meter);
  await changeJob(shopId, tag, {
    id: randomUUID(),
    technician: by,
    celsius: unit.celsius,
    prices: unit.prices ?? { items: {} },
  });
  const opened = unitSession(unit.machine, unit.complaint, [multimeterById(unit.meter)]).opened;
  for (const [n, step] of unit.done.entries()) {
    const [check, given] = typeof step === 'string' ? [step, undefined] : step;
    const outcome = given === undefined ? demoOutcome(opened, unit, check, n) : givenOutcome(given);
    await addReading(shopId, tag, {
      id: randomUUID(),
      place: 'bench',
      told: 'own',
      check,
      typed: typedAs(outcome),
      outcome,
      meter: unit.meter,
      celsius: unit.celsius,
      at: subMinutes(start, -2 * n - 3).toISOString(),
      technician: by,
    });
  }
  for (const [n, [check, given, told = 'own']] of (unit.onVehicle ?? []).entries()) {
    await addReading(shopId, tag, {
      id: randomUUID(),
      place: 'vehicle',
      told,
      check,
      typed: String(given),
      outcome: givenOutcome(given),
      meter: unit.meter,
      celsius: unit.celsius,
      at: subMinutes(start, -2 * n - 1).toISOString(),
      technician: by,
    });
  }
  for (const [minute, step] of unit.drain ?? [])
    await addDrainStep(shopId, tag, {
      id: randomUUID(),
      at: addMinutes(start, minute).toISOString(),
      step,
      technician: by,
    });
  for (const [n, point] of (unit.output ?? []).entries())
    await addRunStep(shopId, tag, {
      id: randomUUID(),
      at: addMinutes(start, 30 + 2 * n).toISOString(),
      round: 1,
      step: { kind: 'point', ...point },
      technician: by,
    });
  if (unit.assembly) await changeJob(shopId, tag, { id: randomUUID(), technician: by, assembly: unit.assembly });
  const { id: jobId } = await findJob(shopId, tag);
  for (const [drawing, caption] of unit.pictures ?? [])
    await addPicture(jobId, by, {
      id: randomUUID(),
      caption,
      sent: await sharp(Buffer.from(demoDrawings[drawing]())).png().toBuffer(),
    });
  if (unit.verdict) await decide(shopId, tag, by, unit.verdict);
  for (const [to, note] of unit.moves ?? []) await moveJob(shopId, tag, { id: randomUUID(), to, note, technician: by });
}

async function decide(
  shopId: string,
  tag: number,
  by: string,
  verdict: NonNullable<DemoUnit['verdict']>,
): Promise<void> {
  const found = await findJob(shopId, tag);
  const made = { jobFile: jobFileOf(found), assessment: await assess(found) };
  await addVerdict(shopId, tag, { id: randomUUID(), ...verdict, technician: by }, made);
}

const givenOutcome = (given: number | string): Outcome =>
  typeof given === 'number' ? { kind: 'value', value: given } : { kind: 'finding', finding: given };

/** What the meter would show on the unit's hidden truth, rounded to its steps. */
function demoOutcome(opened: Case, unit: DemoUnit, checkId: string, n: number): Outcome {
  const check = checkOf(opened, checkId);
  const meter = multimeterById(unit.meter);
  const wanted = unit.truth.map((t) => opened.faults.findIndex((fault) => fault.id === t.fault));
  const off = (severities: readonly number[]) =>
    severities.reduce((sum, s, i) => sum + Math.abs(Math.log(s / unit.truth[i]!.severity)), 0);
  const particle = opened.particles
    .filter((p) => p.faults.length === wanted.length && wanted.every((f, i) => p.faults[i] === f))
    .sort((a, b) => off(a.severities) - off(b.severities))[0]!;
  const prediction = opened.predictor({ meter, celsius: unit.celsius }).predict(check, opened.builds[0]!, particle);
  if (prediction.kind === 'chances') {
    const likeliest = prediction.chances.indexOf(Math.max(...prediction.chances));
    return { kind: 'finding', finding: findingsOf(check)[likeliest]!.id };
  }
  if (prediction.mean > prediction.top) return { kind: 'over-range' };
  // A sound unit is never exactly the mean: a fixed small sway, different from reading to reading.
  const value = fromScale(prediction.mean, check) * (1 + 0.004 * Math.sin(7 * n + unit.customer.length));
  const { method } = check;
  const ofMeter = method.kind === 'meter' ? rangesOf(meter, method.setup.function) : meter.ohms;
  const ranges = method.kind === 'run' ? runRanges(method.setup.instrument, meter) : ofMeter;
  const { step } = check.unit === 'millimetres' ? { step: 0.1 } : rangeFor(ranges, value);
  return { kind: 'value', value: Number((Math.round(value / step) * step).toPrecision(8)) };
}
