import { createServer, type Server, type Socket } from 'node:net';
import { ScpiError } from './error.ts';
import type { ScpiInstrument } from './instrument.ts';

/** A message without an end is given up at this length. */
const longestMessage = 64 * 1024;

/** An instrument at a port of this machine, one message a line, as instruments with a raw socket speak. */
export class Port {
  readonly #server: Server;
  readonly #sockets = new Set<Socket>();
  readonly #port: number;

  constructor(instrument: ScpiInstrument, port: number) {
    this.#port = port;
    this.#server = createServer((socket) => {
      this.#sockets.add(socket);
      socket.setNoDelay(true);
      socket.on('error', () => socket.destroy());
      socket.on('close', () => this.#sockets.delete(socket));
      attend(socket, instrument);
    });
  }

  /** Opens the port, on loopback alone; answers its number. */
  open(): Promise<number> {
    return new Promise((done, failed) => {
      this.#server.once('error', failed);
      this.#server.listen(this.#port, '127.0.0.1', () => done((this.#server.address() as { port: number }).port));
    });
  }

  /** As if the instrument were switched off: whoever is connected is cut off. */
  close(): Promise<void> {
    this.#sockets.forEach((socket) => socket.destroy());
    return new Promise((done) => this.#server.close(() => done()));
  }
}

/** Carries out line after line in their order. */
function attend(socket: Socket, instrument: ScpiInstrument): void {
  let pending = '';
  let work = Promise.resolve();
  socket.setEncoding('latin1');
  socket.on('data', (text: string) => {
    pending += text;
    const lines = pending.split('\n');
    pending = lines.pop()!;
    if (pending.length > longestMessage) {
      pending = '';
      instrument.fail(new ScpiError('-363'));
    }
    for (const line of lines) work = work.then(() => answer(line));
  });
  async function answer(line: string): Promise<void> {
    const said = await instrument.execute(line.trim());
    if (said && !socket.destroyed) socket.write(Buffer.concat([said, Buffer.from('\n')]));
  }
}
