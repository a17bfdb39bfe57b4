import { live } from '$lib/server/live.ts';

/** Server-sent events: the tag number of every job that changed. */
export const GET = () => {
  let leave = () => {};
  const body = new ReadableStream<Uint8Array>({
    start(controller) {
      const encoder = new TextEncoder();
      const send = (text: string) => controller.enqueue(encoder.encode(text));
      const close = () => {
        leave();
        controller.close();
      };
      send('retry: 1500\n\n');
      leave = live().subscribe((tag) => send(`data: ${tag}\n\n`), close);
    },
    cancel: () => leave(),
  });
  return new Response(body, { headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store' } });
};
