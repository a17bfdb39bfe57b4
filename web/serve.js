// Serves the built application over plain http, on loopback, or on the network with --lan.
import { createServer } from 'node:http';
import { fileURLToPath } from 'node:url';
import { lanNames, onLan } from './lan.js';

const port = Number(process.env.PORT);
/** Pictures are the largest that comes in; hooks.server.ts keeps everything else smaller. */
process.env.BODY_SIZE_LIMIT = '16M';
// One server under several names: what it is called stands in each request.
process.env.PROTOCOL_HEADER = 'x-forwarded-proto';
process.env.HOST_HEADER = 'host';
process.env.REASONING_THREAD = fileURLToPath(new URL('build/reasoning/thread.js', import.meta.url));
const { handler } = await import('./build/handler.js');

/** Only names that are ours: a foreign name that points here must not read what a browser here may. */
function isOurs(host = '') {
  const name = host.replace(/:\d+$/, '').toLowerCase();
  return ['127.0.0.1', 'localhost', ...(onLan() ? lanNames().map((one) => one.toLowerCase()) : [])].includes(name);
}

/** What was asked last on each open connection; the code that lets a phone in is for nobody's log. */
const lastAsked = new Map();
const nameOf = ({ method, url }) => `${method} ${url.replace(/\?.*/, '').replace(/\/p\/[^/]*/, '/p/…')}`;
const server = createServer((request, response) => {
  lastAsked.set(request.socket, nameOf(request));
  if (!isOurs(request.headers.host)) {
    response.writeHead(421, { 'content-type': 'text/plain' }).end('Refectum does not go by that name.');
    return;
  }
  request.headers['x-forwarded-proto'] = 'http';
  void handler(request, response);
});
server.on('connection', (socket) => {
  lastAsked.set(socket, 'nothing asked yet');
  socket.once('close', () => lastAsked.delete(socket));
});
server.listen(port, onLan() ? '0.0.0.0' : '127.0.0.1');

/** Sweeps, one every 20 ms that this process runs: a machine that stands still for a second holds nothing open. */
const mostSweeps = 50;

/** Open streams are closed by hooks.server.ts on the same signal; whatever else is open gets a second, and is told of. */
function end() {
  let sweeps = 0;
  const sweep = setInterval(() => {
    server.closeIdleConnections();
    if (++sweeps !== mostSweeps) return;
    const asked = [...lastAsked.values()].join(', ');
    console.warn(`Connections still open a second after the end was asked for were cut: ${asked}.`);
    server.closeAllConnections();
  }, 20);
  server.close(() => {
    clearInterval(sweep);
    process.emit('sveltekit:shutdown', 'SIGTERM');
  });
}
process.once('SIGTERM', end);
process.once('SIGINT', end);
