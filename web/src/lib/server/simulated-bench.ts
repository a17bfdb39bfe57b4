import type { InferType } from 'yup';
import { eq } from 'drizzle-orm';
import { instrumentKinds, type handsSchema, type InstrumentKind } from '$lib/instruments.ts';
import { database } from './db/connect.ts';
import { technician } from './db/schema.ts';
import { findJob } from './jobs/index.ts';
import { saveInstrument } from './instruments/shop.ts';
import { Refused } from './refused.ts';

/** The port of the page of the stand-ins that run beside the demo; their instruments have the ports after it. */
export const standInsPort = (): number | undefined => Number(process.env.REFECTUM_STANDINS) || undefined;

const names: Readonly<Record<InstrumentKind, string>> = {
  multimeter: 'Simulated multimeter',
  clamp: 'Simulated clamp',
  stand: 'Simulated stand',
  load: 'Simulated load',
  supply: 'Simulated supply',
  oscilloscope: 'Simulated oscilloscope',
  commander: 'Simulated commander',
};
const idOf = (n: number): string => `51a7d1a5-0000-4000-8000-00000000000${n}`;

/** Enters the stand-ins among the shop's instruments, wherever they listen today. */
export async function enterStandIns(shopId: string): Promise<void> {
  const first = standInsPort();
  if (!first) return;
  const [lead] = await database()
    .select({ id: technician.id, role: technician.role })
    .from(technician)
    .where(eq(technician.shopId, shopId))
    .then((people) => people.filter(({ role }) => role === 'lead'));
  if (!lead) return;
  for (const [n, kind] of (Object.keys(instrumentKinds) as InstrumentKind[]).entries()) {
    const entry = {
      id: idOf(n + 1),
      name: names[kind],
      kind,
      host: '127.0.0.1',
      port: first + 1 + n,
      meter: kind === 'multimeter' ? 'bench' : null,
    };
    // Its name is taken or its meter out of use: the shop goes on without it.
    await saveInstrument(shopId, lead.id, entry).catch((cause: Error) => {
      if (!(cause instanceof Refused)) throw cause;
      console.error(`${entry.name} is left out: ${cause.message}`);
    });
  }
}

/** Puts the job's unit in the simulated vise, and the hands where they are wanted. */
export async function moveHands(shopId: string, { tag, ...hands }: InferType<typeof handsSchema>): Promise<void> {
  const port = standInsPort();
  if (!port) throw new Refused(409, 'There is no simulated bench here: move the probes yourself.');
  const { machine } = await findJob(shopId, tag);
  await tell(port, '/unit', { tag, machine });
  await tell(port, '/hands', hands);
}

async function tell(port: number, path: string, body: unknown): Promise<void> {
  const answer = await fetch(`http://127.0.0.1:${port}${path}`, { method: 'POST', body: JSON.stringify(body) }).catch(
    () => undefined,
  );
  if (!answer) throw new Refused(503, 'The simulated bench doesn’t answer: is it still running?');
  if (!answer.ok) throw new Refused(422, ((await answer.json()) as { message: string }).message);
}
