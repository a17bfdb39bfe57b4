/** What to say of a form that the server did not take; it stays on screen as it was typed. */
export function notTaken({ status, error }: { readonly status?: number; readonly error: unknown }): string {
  const { message } = (error ?? {}) as { message?: string };
  if (status === 401)
    return 'You were signed out meanwhile: sign in in another window, then try again. Nothing is lost.';
  if (status === 403 && message) return message;
  return 'The server did not take it. What you typed is still here: try again in a moment.';
}
