import { invalidateAll } from '$app/navigation';
import { navigating } from '$app/state';
import { outbox } from './outbox.svelte.ts';

let takenBefore = 0;
/** How many writes the server had taken when the newest refresh began: what came of it holds those for sure. */
export const takenBeforeRefresh = (): number => takenBefore;

/**
 * Fetches what is on screen anew. While the server is away what is on screen stays, and an event calls again once it is
 * back.
 */
export async function refresh(): Promise<void> {
  const well = await fetch('/api/health').then(
    ({ ok }) => ok,
    () => false,
  );
  if (!well) return;
  await arrived();
  takenBefore = outbox.taken.length;
  await invalidateAll();
}

/**
 * Waits for pages on their way: a refresh would call them back. A page that was called back all the same keeps its
 * place, so that each is waited for once.
 */
async function arrived(): Promise<void> {
  let last: Promise<void> | null = null;
  while (navigating.complete && navigating.complete !== last) {
    last = navigating.complete;
    await last.catch(() => undefined);
  }
}
