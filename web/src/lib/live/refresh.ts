import { invalidateAll } from '$app/navigation';
import { navigating } from '$app/state';

/**
 * Fetches what is on screen anew. Waits for a page on its way, which a refresh would call back; while the server is away
 * what is on screen stays, and an event calls again once it is back.
 */
export async function refresh(): Promise<void> {
  while (navigating.complete) await navigating.complete.catch(() => undefined);
  const well = await fetch('/api/health').then(
    ({ ok }) => ok,
    () => false,
  );
  if (well) await invalidateAll();
}
