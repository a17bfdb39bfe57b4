import type { InstrumentKind, LiveWord } from '../instruments.ts';

/**
 * Hears what instruments of some kinds read, until ended. The browser connects anew by itself after the server was
 * away; `lost` is told when it goes and when it is back.
 */
export function hearInstruments(
  kinds: readonly InstrumentKind[],
  heard: (word: LiveWord) => void,
  lost: (away: boolean) => void,
): () => void {
  const stream = new EventSource(`/api/instruments/live?${new URLSearchParams({ kinds: kinds.join(',') })}`);
  stream.onmessage = ({ data }: MessageEvent<string>) => heard(JSON.parse(data) as LiveWord);
  stream.onopen = () => lost(false);
  stream.onerror = () => lost(true);
  return () => stream.close();
}

/** Sends something to an instrument or to the simulated bench; answers what was wrong, in words. */
export async function tellInstrument(path: string, body: unknown): Promise<string | undefined> {
  const answer = await fetch(path, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  }).catch(() => undefined);
  if (!answer) return 'The server is away: nothing was set.';
  return answer.ok ? undefined : ((await answer.json()) as { message: string }).message;
}
