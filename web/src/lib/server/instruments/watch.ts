import type { InstrumentSetting, LiveWord, ShopInstrument, Told } from '../../instruments.ts';
import { Refused } from '../refused.ts';
import { type Capture, capture, drivers } from './drivers.ts';
import { Link, LinkLost } from './link.ts';

/** Between one reading and the next question. */
const pauseMilliseconds = 20;
/** An instrument that says nothing new, and one that is gone, are asked so often. */
const idleMilliseconds = 400;
const retryMilliseconds = 1000;
const quick = ['multimeter', 'clamp', 'stand'];
/** When the last screen that looked on has gone, what turns or loads a unit is stopped after so long. */
const unwatchedMilliseconds = 4000;

type Hear = (word: LiveWord) => void;
const holder = globalThis as { refectumInstruments?: Map<string, Watch> };

/** One instrument of the shop: asked again and again as long as somebody listens, silent else. */
class Watch {
  readonly #instrument: ShopInstrument;
  readonly #link: Link;
  readonly #listeners = new Set<Hear>();
  #asking = false;
  /** How often it was stopped: what asked to be set going before the last stop is too late. */
  #stops = 0;
  /** Where somebody here set it going and no stop has reached it since: after how many stops. */
  #going: number | undefined;
  #unwatched: ReturnType<typeof setTimeout> | undefined;

  constructor(instrument: ShopInstrument) {
    this.#instrument = instrument;
    this.#link = new Link(instrument.host, instrument.port);
  }

  reaches({ host, port, kind }: ShopInstrument): boolean {
    return this.#instrument.host === host && this.#instrument.port === port && this.#instrument.kind === kind;
  }

  listen(hear: Hear): () => void {
    this.#listeners.add(hear);
    clearTimeout(this.#unwatched);
    if (!this.#asking) void this.#ask();
    return () => {
      this.#listeners.delete(hear);
      this.#mindUnwatched();
    };
  }

  /** `released`: what has to be waited for first; it refuses by throwing. */
  async set(setting: InstrumentSetting, released?: () => Promise<void>): Promise<void> {
    const words = drivers[this.#instrument.kind].words?.(setting);
    if (!words) throw new Refused(422, `${this.#instrument.name} can’t be set like that.`);
    const stops = this.#stops;
    await released?.();
    if (stops !== this.#stops) throw new Refused(409, 'Stopped meanwhile: nothing was set going.');
    if (drivers[this.#instrument.kind].halt) this.#going = this.#stops;
    try {
      await this.#spoken(() => this.#link.tell(words));
    } finally {
      this.#mindUnwatched();
    }
  }

  /** Stops it, whoever set it going. */
  async stop(): Promise<void> {
    const { halt } = drivers[this.#instrument.kind];
    if (!halt) throw new Refused(422, `${this.#instrument.name} has nothing to stop.`);
    this.#stops++;
    try {
      await this.#spoken(() => this.#halted(halt));
    } finally {
      this.#mindUnwatched();
    }
  }

  /** Stops what was set going from here and is still; an instrument that doesn't answer, as soon as it does. */
  async halt(): Promise<void> {
    if (this.#going !== undefined) await this.stop().catch((cause: Error) => console.error(cause.message));
  }

  capture(seconds: number, points: number, tap = false): Promise<Capture> {
    return this.#spoken(() => capture(this.#link, seconds, points, tap));
  }

  /** Before it is watched no more. */
  async end(): Promise<void> {
    await this.halt();
    clearTimeout(this.#unwatched);
    this.#going = undefined;
    this.#listeners.clear();
    this.#link.close();
  }

  /** Nobody looks on any more: what doesn't answer just now is stopped as soon as it does. */
  async part(): Promise<void> {
    await this.halt();
    this.#listeners.clear();
    this.#mindUnwatched();
  }

  async #halted(halt: string): Promise<void> {
    const stop = this.#stops;
    await this.#link.tell(halt);
    // It may have been set going again meanwhile.
    if (this.#going !== undefined && this.#going < stop) this.#going = undefined;
  }

  /** What is going while nobody looks on isn't for long. */
  #mindUnwatched(): void {
    clearTimeout(this.#unwatched);
    if (this.#listeners.size > 0) return;
    if (this.#going !== undefined) this.#unwatched = setTimeout(() => void this.halt(), unwatchedMilliseconds).unref();
    else this.#link.close();
  }

  async #spoken<T>(act: () => Promise<T>): Promise<T> {
    try {
      return await act();
    } catch (cause) {
      if (cause instanceof LinkLost) throw new Refused(503, `${this.#instrument.name}: ${cause.message}.`);
      if (cause instanceof RangeError) throw new Refused(422, `${this.#instrument.name}: ${cause.message}`);
      throw cause;
    }
  }

  async #ask(): Promise<void> {
    this.#asking = true;
    const { kind } = this.#instrument;
    const driver = drivers[kind];
    let begun = false;
    while (this.#listeners.size > 0) {
      let pause = quick.includes(kind) ? pauseMilliseconds : idleMilliseconds;
      try {
        // It was stopped while it didn't answer.
        if (driver.halt && this.#going !== undefined && this.#going < this.#stops) await this.#halted(driver.halt);
        if (!begun && driver.begin) await this.#link.tell(driver.begin);
        begun = true;
        this.#say(await driver.poll(this.#link));
      } catch (cause) {
        if (!(cause instanceof LinkLost) && !(cause instanceof RangeError)) console.error(cause);
        begun = false;
        pause = retryMilliseconds;
        this.#say({ state: 'gone', why: (cause as Error).message });
      }
      await new Promise((done) => setTimeout(done, pause));
    }
    this.#asking = false;
    this.#link.close();
  }

  #say(told: Told): void {
    const word = { instrument: this.#instrument.id, at: Date.now(), ...told };
    this.#listeners.forEach((hear) => hear(word));
  }
}

/** By the instrument's id; a server that reloads this file goes on with the same. */
const watches = (holder.refectumInstruments ??= new Map<string, Watch>());

/** Stops everything that was set going, before the server ends. */
export const endAll = (): Promise<unknown> => Promise.all([...watches.values()].map((watch) => watch.end()));

/** Stops what was set going from here at an instrument that is reached no more, or elsewhere from `now` on. */
export async function partWith(id: string, now?: ShopInstrument): Promise<void> {
  const known = watches.get(id);
  if (!known || (now && known.reaches(now))) return;
  watches.delete(id);
  await known.part();
}

/** The watch over an instrument; a new one where its address has changed. */
export function watchOf(instrument: ShopInstrument): Watch {
  const known = watches.get(instrument.id);
  if (known?.reaches(instrument)) return known;
  void partWith(instrument.id);
  const fresh = new Watch(instrument);
  watches.set(instrument.id, fresh);
  return fresh;
}
