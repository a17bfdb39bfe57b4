import { ScpiError } from './error.ts';
import { fullHeader, headerPattern } from './header.ts';
import { unitsOf } from './message.ts';

type Answer = string | Buffer;

export interface Command {
  /** As `[SENSe:]FUNCtion?`; a query ends with a question mark. */
  readonly header: string;
  /** Least and most parameters; none when left out. */
  readonly takes?: readonly [number, number];
  readonly run: (parameters: readonly string[]) => Answer | undefined | Promise<Answer | undefined>;
}

const mostErrors = 16;
const powerOn = 1 << 7;
const operationComplete = 1;

/**
 * An instrument as IEEE 488.2 and SCPI-1999 want it: common commands, standard event status, error queue, and its own
 * commands. It knows nothing of how messages reach it.
 */
export class ScpiInstrument {
  readonly #identity: string;
  readonly #reset: () => void;
  readonly #commands: readonly (Command & { readonly fits: RegExp })[];
  readonly #errors: ScpiError[] = [];
  #events = powerOn;
  #eventMask = 0;
  #serviceMask = 0;

  constructor(identity: string, commands: readonly Command[], reset: () => void = () => undefined) {
    this.#identity = identity;
    this.#reset = reset;
    this.#commands = [...this.#common(), ...commands].map((command) => ({
      ...command,
      fits: headerPattern(command.header),
    }));
  }

  /** Carries out one message; its answers joined, or undefined where nothing was asked. */
  async execute(message: string): Promise<Buffer | undefined> {
    const answers: Buffer[] = [];
    let path = '';
    try {
      for (const { header, parameters } of unitsOf(message)) {
        const { full, path: next } = fullHeader(header, path);
        path = next;
        const answer = await this.#run(full, parameters);
        if (answer !== undefined) answers.push(Buffer.from(answer as Buffer));
      }
    } catch (cause) {
      // What comes after a unit that failed is not carried out.
      this.fail(cause instanceof ScpiError ? cause : new ScpiError('-240', String(cause)));
    }
    if (answers.length === 0) return undefined;
    return Buffer.concat(answers.flatMap((answer, n) => (n === 0 ? [answer] : [Buffer.from(';'), answer])));
  }

  /** Puts an error into the queue; the last place of a full queue says that it ran over. */
  fail(error: ScpiError): void {
    this.#events |= error.eventBit;
    if (this.#errors.length < mostErrors) this.#errors.push(error);
    else this.#errors[mostErrors - 1] = new ScpiError('-350');
  }

  async #run(header: string, parameters: readonly string[]): Promise<Answer | undefined> {
    const command = this.#commands.find(({ fits }) => fits.test(header));
    if (!command) throw new ScpiError('-113', header);
    const [least, most] = command.takes ?? [0, 0];
    if (parameters.length < least) throw new ScpiError('-109', header);
    if (parameters.length > most) throw new ScpiError('-108', header);
    return command.run(parameters);
  }

  get #status(): number {
    const status = (this.#errors.length ? 1 << 2 : 0) | (this.#events & this.#eventMask ? 1 << 5 : 0);
    return status | (status & this.#serviceMask ? 1 << 6 : 0);
  }

  #common(): Command[] {
    const byte = (text: string): number => {
      const value = Math.round(Number(text));
      if (Number.isNaN(value)) throw new ScpiError('-104', text);
      if (value < 0 || value > 255) throw new ScpiError('-222', text);
      return value;
    };
    const done = (work: () => void) => (): undefined => {
      work();
    };
    return [
      { header: '*IDN?', run: () => this.#identity },
      { header: '*RST', run: done(() => this.#reset()) },
      {
        header: '*CLS',
        run: done(() => {
          this.#errors.length = 0;
          this.#events = 0;
        }),
      },
      {
        header: '*ESR?',
        run: () => {
          const events = this.#events;
          this.#events = 0;
          return String(events);
        },
      },
      { header: '*ESE', takes: [1, 1], run: ([mask]) => void (this.#eventMask = byte(mask!)) },
      { header: '*ESE?', run: () => String(this.#eventMask) },
      { header: '*SRE', takes: [1, 1], run: ([mask]) => void (this.#serviceMask = byte(mask!) & ~(1 << 6)) },
      { header: '*SRE?', run: () => String(this.#serviceMask) },
      { header: '*STB?', run: () => String(this.#status) },
      { header: '*OPC', run: done(() => (this.#events |= operationComplete)) },
      { header: '*OPC?', run: () => '1' },
      { header: '*WAI', run: () => undefined },
      { header: '*TST?', run: () => '0' },
      { header: 'SYSTem:ERRor[:NEXT]?', run: () => this.#errors.shift()?.queued ?? '0,"No error"' },
      { header: 'SYSTem:ERRor:COUNt?', run: () => String(this.#errors.length) },
      { header: 'SYSTem:VERSion?', run: () => '1999.0' },
    ];
  }
}
