import { createConnection, type Socket } from 'node:net';

/** Why an instrument can't be spoken with, in words for the bench. */
export class LinkLost extends Error {}

const connectMilliseconds = 2000;
const answerMilliseconds = 5000;
/** Longest answer, a trace of an oscilloscope in numbers of four bytes. */
const longestAnswer = 8 * 1024 * 1024;

/** `#`: a block of bytes begins. */
const blockSign = 0x23;

interface Waiting {
  readonly done: (answer: Buffer) => void;
  readonly failed: (cause: Error) => void;
}

/**
 * A line to one instrument: SCPI messages over a plain socket, one after the other. It knows host and port alone, and
 * connects when it is spoken through; once lost, the next message connects anew.
 */
export class Link {
  readonly #host: string;
  readonly #port: number;
  #socket: Promise<Socket> | undefined;
  #waiting: Waiting | undefined;
  #received: Buffer = Buffer.alloc(0);
  #queue: Promise<unknown> = Promise.resolve();

  constructor(host: string, port: number) {
    this.#host = host;
    this.#port = port;
  }

  /** Sends a message that asks something; answers what comes back, without the end of the line. */
  ask(message: string): Promise<string> {
    return this.#inTurn(async () => (await this.#exchange(message)).toString('latin1'));
  }

  /** Asks for a block of 32-bit numbers (IEEE 488.2 8.7.9). */
  askBlock(message: string): Promise<number[]> {
    return this.#inTurn(async () => {
      const answer = await this.#exchange(message);
      if (answer[0] !== blockSign)
        throw new RangeError(`it answers “${answer.toString('latin1', 0, 60)}” where a trace belongs`);
      const digits = Number(String.fromCharCode(answer[1] ?? 0));
      const from = 2 + digits;
      return Array.from({ length: (answer.length - from) >> 2 }, (_, n) => answer.readFloatBE(from + 4 * n));
    });
  }

  /** Sends messages that ask nothing; refused with the instrument's own words where its error queue has some. */
  tell(message: string): Promise<void> {
    return this.#inTurn(async () => {
      // Two messages: an instrument gives up a message at its first mistake, the question with it.
      const said = (await this.#exchange(`${message}\nSYST:ERR?`)).toString('latin1');
      if (/^[+-]?0\b/.test(said)) return;
      throw new RangeError(`The instrument refuses: ${said.replace(/^[^"]*"|"[^"]*$/g, '') || said}.`);
    });
  }

  close(): void {
    void this.#socket?.then(
      (socket) => socket.destroy(),
      () => undefined,
    );
    this.#socket = undefined;
  }

  #inTurn<T>(work: () => Promise<T>): Promise<T> {
    const next = this.#queue.then(work, work);
    this.#queue = next.catch(() => undefined);
    return next;
  }

  async #exchange(message: string): Promise<Buffer> {
    const socket = await (this.#socket ??= this.#connect());
    return new Promise<Buffer>((done, failed) => {
      const timer = setTimeout(() => this.#lose(new LinkLost(`it doesn’t answer “${message}”`)), answerMilliseconds);
      const end =
        <V>(how: (value: V) => void) =>
        (value: V) => {
          clearTimeout(timer);
          this.#waiting = undefined;
          how(value);
        };
      this.#waiting = { done: end(done), failed: end(failed) };
      socket.write(`${message}\n`);
    });
  }

  #connect(): Promise<Socket> {
    const connecting = new Promise<Socket>((done, failed) => {
      const socket = createConnection({ host: this.#host, port: this.#port, timeout: connectMilliseconds });
      const at = `${this.#host}, port ${this.#port}`;
      socket.setNoDelay(true);
      socket.once('connect', () => {
        socket.setTimeout(0);
        this.#received = Buffer.alloc(0);
        done(socket);
      });
      socket.once('timeout', () => socket.destroy(new Error('nobody answers')));
      socket.on('data', (piece) => this.#hear(piece));
      socket.once('error', (cause) => failed(new LinkLost(`nobody is there at ${at} (${cause.message})`)));
      socket.once('close', () => {
        failed(new LinkLost(`nobody is there at ${at}`));
        if (this.#socket === connecting) this.#lose(new LinkLost(`it was switched off, or its cable pulled (${at})`));
      });
    });
    connecting.catch(() => {
      if (this.#socket === connecting) this.#socket = undefined;
    });
    return connecting;
  }

  #hear(piece: Buffer): void {
    this.#received = this.#received.length ? Buffer.concat([this.#received, piece]) : piece;
    if (this.#received.length > longestAnswer) return this.#lose(new LinkLost('it sends more than was asked for'));
    const end = endOf(this.#received);
    if (end < 0) return;
    const answer = this.#received.subarray(0, end);
    this.#received = this.#received.subarray(end + 1);
    const trimmed = answer.at(-1) === 0x0d && answer[0] !== blockSign ? answer.subarray(0, -1) : answer;
    this.#waiting?.done(trimmed);
  }

  #lose(cause: LinkLost): void {
    const { failed } = this.#waiting ?? {};
    this.close();
    failed?.(cause);
  }
}

/** Where the answer's line ends, −1 where it hasn't yet. A block says its own length: its bytes may look like an end. */
function endOf(received: Buffer): number {
  if (received[0] !== blockSign) return received.indexOf(0x0a);
  const digits = Number(String.fromCharCode(received[1] ?? 0x30));
  if (received.length < 2 + digits) return -1;
  const length = Number(received.toString('latin1', 2, 2 + digits));
  const end = received.indexOf(0x0a, 2 + digits + length);
  return Number.isFinite(length) ? end : received.indexOf(0x0a);
}
