import type { Job, TakenDrainStep, TakenReading, TakenWork } from '../job.ts';
import type { TakenRunStep } from '../run-log.ts';
import { type Setting, settingAfter } from '../setting.ts';
import { type Outgoing, outbox } from './outbox.svelte.ts';

/** What was written here of one unit and the server has or will have, whether or not it has told so yet. */
const writesSent = (tag: number, what: string): readonly Outgoing[] =>
  [...outbox.taken, ...outbox.waiting].filter((item) => item.tag === tag && item.path.endsWith(what));

/** What the server has told of, and after it what was sent. */
function withSent<T extends { readonly id: string }>(told: readonly T[], tag: number, what: string): readonly T[] {
  const known = new Set(told.map(({ id }) => id));
  const fresh = writesSent(tag, what).filter(({ id }) => !known.has(id));
  return [...told, ...fresh.map(({ body, by }) => ({ ...body, technician: by }) as unknown as T)];
}

export const worksSent = ({ works, tag }: Pick<Job, 'works' | 'tag'>): readonly TakenWork[] =>
  withSent(works, tag, '/works');
export const runsSent = ({ runs, tag }: Pick<Job, 'runs' | 'tag'>): readonly TakenRunStep[] =>
  withSent(runs, tag, '/runs');
export const drainSent = ({ drain, tag }: Pick<Job, 'drain' | 'tag'>): readonly TakenDrainStep[] =>
  withSent(drain, tag, '/drain');

/** Readings, those struck out here among them. */
export function readingsSent({ readings, tag }: Pick<Job, 'readings' | 'tag'>): readonly TakenReading[] {
  const struck = new Map(
    writesSent(tag, '/strikes').map(({ body, by }) => [String(body.reading), { at: String(body.at), technician: by }]),
  );
  return withSent(readings, tag, '/readings').map((reading) =>
    !reading.struck && struck.has(reading.id) ? { ...reading, struck: struck.get(reading.id)! } : reading,
  );
}

/** The setting with every change of it that was sent; of the taken writes the first `settled` are in what the server told. */
export function settingSent(told: Job, settled: number): Setting {
  const { tag, machine, assembly, meter, celsius, prices, vehicle } = told;
  const before: Setting = { assembly, meter, celsius, prices, vehicle };
  return [...outbox.taken.slice(settled), ...outbox.waiting]
    .filter((item) => item.tag === tag && item.method === 'PATCH')
    .reduce((so, { body: { technician: _, id: __, ...change } }) => settingAfter(so, change, machine), before);
}
