import { invalidateAll } from '$app/navigation';
import { navigating } from '$app/state';

/** Fetches what is on screen anew. Waits for a page on its way, which a refresh would call back. */
export async function refresh(): Promise<void> {
  while (navigating.complete) await navigating.complete.catch(() => undefined);
  await invalidateAll();
}
