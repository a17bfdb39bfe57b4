import { untrack } from 'svelte';
import { anyTag } from '../job.ts';
import { listen } from './event-stream.ts';

/**
 * Hears which jobs changed elsewhere since what is on screen was read: `asOf` answers the number of the change before.
 * The stream is closed while the page is hidden (a browser keeps few open to one host); `missed` is called where it
 * isn't known what changed.
 */
export function watchChanges(asOf: () => number, heard: (tag: number) => void, missed: () => void): () => void {
  const open = () =>
    listen(() => `/api/events?since=${untrack(asOf)}`, {
      heard: (tag) => (Number(tag) === anyTag ? missed() : heard(Number(tag))),
    });
  let close = open();
  const onVisible = () => {
    close();
    if (!document.hidden) close = open();
  };
  document.addEventListener('visibilitychange', onVisible);
  return () => {
    close();
    document.removeEventListener('visibilitychange', onVisible);
  };
}
