import { live } from './live.ts';

/**
 * Server-sent events, ended when the browser goes or the server does. `begin` answers what ends them; a browser that lost
 * the stream tells the last id that it had.
 */
export function streamOf(begin: (send: (data: string, id?: number) => void) => () => void): Response {
  let leave = () => {};
  const body = new ReadableStream<Uint8Array>({
    start(controller) {
      const encoder = new TextEncoder();
      const send = (text: string) => controller.enqueue(encoder.encode(text));
      send('retry: 1500\n\n');
      const end = begin((data, id) => send(`${id === undefined ? '' : `id: ${id}\n`}data: ${data}\n\n`));
      const off = live().onClose(() => {
        leave();
        controller.close();
      });
      leave = () => {
        off();
        end();
      };
    },
    cancel: () => leave(),
  });
  return new Response(body, { headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store' } });
}
