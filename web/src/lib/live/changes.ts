import { untrack } from 'svelte';
import { anyTag } from '../job.ts';

/**
 * Hears which jobs changed elsewhere since what is on screen was read: `asOf` answers the number of the change before.
 * The stream is closed while the page is hidden (a browser keeps few open to one host); `missed` is called where it
 * isn't known what changed.
 */
export function watchChanges(asOf: () => number, heard: (tag: number) => void, missed: () => void): () => void {
  let stream: EventSource | undefined;
  const open = () => {
    stream = new EventSource(`/api/events?since=${untrack(asOf)}`);
    stream.onmessage = ({ data }: MessageEvent<string>) => (Number(data) === anyTag ? missed() : heard(Number(data)));
  };
  const onVisible = () => {
    stream?.close();
    if (!document.hidden) open();
  };
  open();
  document.addEventListener('visibilitychange', onVisible);
  return () => {
    stream?.close();
    document.removeEventListener('visibilitychange', onVisible);
  };
}
