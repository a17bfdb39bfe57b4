import type { SubmitFunction } from '@sveltejs/kit';

/** What to say of a form that the server did not take; it stays on screen as it was typed. */
export function notTaken({ status, error }: { readonly status?: number; readonly error: unknown }): string {
  const { message } = (error ?? {}) as { message?: string };
  if (status === 401)
    return 'You were signed out meanwhile: sign in in another window, then try again. Nothing is lost.';
  if (status === 403 && message) return message;
  return 'The server did not take it. What you typed is still here: try again in a moment.';
}

/**
 * Sends a form from the page that it stands on, which stays as it was typed: taken, refused or not taken. `told` hears
 * why the server took nothing, and that it is being sent anew by an empty text. `empties`: what was taken goes, secrets
 * and the like.
 */
export const sends =
  (told: (why: string) => void, { empties = false } = {}): SubmitFunction =>
  () => {
    told('');
    return async ({ result, update }) => {
      // An error page would lose what was typed.
      if (result.type === 'error') told(notTaken(result));
      else await update({ reset: empties });
    };
  };
