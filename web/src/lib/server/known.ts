import { machineOf } from '@refectum/core/shelf';
import { and, desc, eq, ilike, max, sql } from 'drizzle-orm';
import type { KnownModel, Plate } from '../job.ts';
import { database } from './db/connect.ts';
import { job, verdict } from './db/schema.ts';
import { shelvedAs } from './shelf.ts';

/** What the shop knows from earlier jobs, for whoever checks a unit in. */

const most = 8;
/** The text taken as it is: % and _ mean themselves. */
const beginning = (text: string): string => `${text.replaceAll(/[\\%_]/g, String.raw`\$&`)}%`;

export async function knownCustomers(shopId: string, text: string): Promise<string[]> {
  const rows = await database()
    .select({ customer: job.customer })
    .from(job)
    .where(and(eq(job.shopId, shopId), ilike(job.customer, beginning(text))))
    .groupBy(job.customer)
    .orderBy(desc(max(job.tag)))
    .limit(most);
  return rows.map(({ customer }) => customer);
}

/** Models that begin so, the one of this very name first: as the shelf has them, then as they were last checked in. */
export async function knownModels(shopId: string, text: string): Promise<KnownModel[]> {
  const [shelf, seen] = await Promise.all([shelvedAs(shopId, { begins: beginning(text) }), seenModels(shopId, text)]);
  const shelved = shelf.map(({ known: model, warnings }): KnownModel => {
    const { name, facts, variants } = model;
    const read = (id: string) => String(facts[id]?.value ?? '');
    return {
      model: name,
      machine: machineOf(model),
      plate: {
        direction: read('direction') as Plate['direction'],
        pulley: read('pulley') as Plate['pulley'],
        connector: read('connector'),
        cameWith: '',
      },
      tag: undefined,
      warnings,
      variants: variants.map((variant) => ({ ...variant, machine: machineOf(model, variant) })),
    };
  });
  const names = new Set(shelved.map(({ model }) => model.toLowerCase()));
  const all = [...shelved, ...seen.filter(({ model }) => !names.has(model.toLowerCase()))];
  const isNamed = ({ model }: KnownModel) => model.toLowerCase() === text.toLowerCase();
  return [...all.filter(isNamed), ...all.filter((known) => !isNamed(known))].slice(0, most);
}

async function seenModels(shopId: string, text: string): Promise<KnownModel[]> {
  const length = sql`length(${job.model})`;
  const rows = await database()
    .selectDistinctOn([length, job.model], { model: job.model, machine: job.machine, plate: job.plate, tag: job.tag })
    .from(job)
    .where(and(eq(job.shopId, shopId), ilike(job.model, beginning(text)), sql`lower(${job.model}) <> 'unknown'`))
    .orderBy(length, job.model, desc(job.tag))
    .limit(most);
  return rows.map((row) => ({ ...row, warnings: [], variants: [] }));
}

export interface SeenBefore {
  readonly tag: number;
  readonly model: string;
  readonly at: string;
  /** The newest decision, if there was one. */
  readonly course: string | undefined;
  readonly reason: string | undefined;
}

/** Earlier jobs of one serial number, newest first. */
export async function seenBefore(shopId: string, serial: string): Promise<SeenBefore[]> {
  const rows = await database()
    .selectDistinctOn([job.tag], {
      tag: job.tag,
      model: job.model,
      at: job.checkedInAt,
      course: verdict.course,
      reason: verdict.reason,
    })
    .from(job)
    .leftJoin(verdict, eq(verdict.jobId, job.id))
    .where(and(eq(job.shopId, shopId), eq(job.serial, serial)))
    .orderBy(desc(job.tag), desc(verdict.decidedAt))
    .limit(most);
  return rows.map(({ at, course, reason, ...rest }) => ({
    ...rest,
    at: at.toISOString(),
    course: course ?? undefined,
    reason: reason ?? undefined,
  }));
}
