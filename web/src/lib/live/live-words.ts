import type { InstrumentKind, LiveWord } from '../instruments.ts';
import { listen } from './event-stream.ts';

/** Hears what instruments of some kinds read, until ended. `lost` is told when the server goes and when it is back. */
export function hearInstruments(
  kinds: readonly InstrumentKind[],
  heard: (word: LiveWord) => void,
  lost: (away: boolean) => void,
): () => void {
  return listen(() => `/api/instruments/live?${new URLSearchParams({ kinds: kinds.join(',') })}`, {
    heard: (data) => heard(JSON.parse(data) as LiveWord),
    opened: () => lost(false),
    lost: () => lost(true),
  });
}

/** Sends something to an instrument or to the simulated bench; answers what was wrong, in words. `undone`: what didn't happen where the server is away. */
export async function tellInstrument(
  path: string,
  body: unknown,
  undone = 'nothing was set.',
): Promise<string | undefined> {
  const answer = await fetch(path, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  }).catch(() => undefined);
  if (!answer) return `The server is away: ${undone}`;
  return answer.ok ? undefined : ((await answer.json()) as { message: string }).message;
}

/** What an oscilloscope caught, at equal steps of time. */
export interface Captured {
  readonly secondsPerSample: number;
  readonly amps: readonly number[];
  readonly volts: readonly number[];
  readonly tap?: readonly number[];
}

/** Asks an oscilloscope for a trace; else why none came. */
export async function captureTrace(
  oscilloscope: string,
  wanted: { readonly seconds: number; readonly points: number; readonly tap?: boolean },
): Promise<Captured | { readonly why: string }> {
  const answer = await fetch(`/api/instruments/${oscilloscope}/trace`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(wanted),
  }).catch(() => undefined);
  if (!answer) return { why: 'The server is away: no trace came.' };
  const said = (await answer.json()) as Captured & { message: string };
  return answer.ok ? said : { why: said.message };
}
