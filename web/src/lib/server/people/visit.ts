import type { RequestEvent } from '@sveltejs/kit';

/** What signing in needs to know of a request. */
export const visitOf = (event: Pick<RequestEvent, 'cookies' | 'url' | 'getClientAddress'>) => ({
  cookies: event.cookies,
  url: event.url,
  address: event.getClientAddress(),
});
