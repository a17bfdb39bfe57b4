import { ask, freshUnit, stand } from './stage.ts';

/** What the simulated bench is told beside the application: its own page's door. */
export const tell = (path: string, body: unknown): Promise<Response> =>
  fetch(`http://127.0.0.1:${stand.standInsPort}${path}`, { method: 'POST', body: JSON.stringify(body) });
/** Something done while an instrument is switched off, which is on again whatever comes of it. */
export async function without(name: string, act: () => Promise<unknown>): Promise<void> {
  await tell('/instrument', { name, on: false });
  try {
    await act();
  } finally {
    await tell('/instrument', { name, on: true });
  }
}
/** How fast its stand turns, what its load does, its scenario, and the command it hears. */
export const benchState = async () =>
  (await (await fetch(`http://127.0.0.1:${stand.standInsPort}/state`)).json()) as {
    rpm: number;
    load: { on: boolean };
    scenario: { machine: object };
    command: unknown;
    instruments: { name: string; on: boolean }[];
  };
export const instrumentState = async (wanted: string) =>
  (await benchState()).instruments.find(({ name }) => name === wanted)!;
/** The shop's instruments, as the application knows them. */
export const instruments = async () =>
  (await (await ask('/api/instruments')).json()) as {
    id: string;
    kind: string;
    name: string;
    host: string;
    port: number;
  }[];

/** A unit of its own, just checked in, with what hides in it. */
export async function hiddenUnit(faults: { fault: string; severity: number }[]): Promise<number> {
  const tag = await freshUnit();
  const { machine } = (await (await ask(`/api/jobs/${tag}/view`)).json()) as { machine: object };
  const sure = { ...machine, connection: 'star', diodeKind: 'silicon' };
  await tell('/scenario', { name: 'a test', machine: sure, faults, meter: 'bench', seed: tag });
  return tag;
}
