import { standLimit, type StandProfile } from '@refectum/core/handbook';
import type { InstrumentKind, LiveWord, ShopInstrument } from '../instruments.ts';
import { hearInstruments, tellInstrument } from './live-words.ts';
import { outbox } from './outbox.svelte.ts';
import { type PlannedPoint, planPoints } from './point-plan.ts';
import { type Figure, figures, RecentFigures } from './recent-figures.ts';
import type { RunStand } from './run-stand.svelte.ts';

const heard = ['multimeter', 'clamp', 'stand', 'load', 'supply', 'commander'] as const;
type Heard = (typeof heard)[number];
type Words = { readonly [K in Heard]?: Extract<LiveWord, { kind: K }> };

/** From here on an arm holds the pinion fast. */
export const heldNewtonMetres = 500;

const source = { volts: 'multimeter', amps: 'clamp', rpm: 'stand' } as const;
/** A load stays on so long at most [common practice, no source: 10 s]. */
const usualLoadSeconds = 10;
/** Whoever left while something couldn't be reached tries to stop it so often, with such pauses. */
const leavingTries = 30;
const leavingPauseMilliseconds = 2000;
const notStopped = 'nothing was stopped. Use its own switch.';

const setsGoing = ({ rpm, on }: Record<string, unknown>): boolean => on === true || Number(rpm) > 0;

/** What the stand can pull, and what the unit should give at a speed and the rating's volts, by its plate. */
export interface StandReach {
  readonly profile: StandProfile;
  readonly volts: number;
  readonly foreseen: (rpm: number) => number;
  /** Above so much at the post, V, nothing goes on turning; undefined where nothing charges. */
  readonly mostVolts?: number;
}

/** Slower than this it stands. */
export const standingRpm = 60;

/** The instruments around the unit on the stand: what they read now, and what they are told. */
export class StandInstruments {
  readonly #tag: () => number;
  #words = $state.raw<Words>({});
  #gone = $state.raw<Readonly<Partial<Record<Heard, string>>>>({});
  away = $state(false);
  /** Whether this screen hears them: before its script acts nothing on it can be pressed. */
  listens = $state(false);
  problem = $state('');
  /** What is being done by itself; empty when nothing is. */
  doing = $state('');
  readonly #recent = new RecentFigures();
  #undertaken = 0;
  /** How often it was stopped here; and what this screen set going, each after how many of these stops. */
  #stops = 0;
  readonly #going = new Map<InstrumentKind, number>();
  #letGo: ReturnType<typeof setTimeout> | undefined;
  readonly #instruments: () => readonly ShopInstrument[];
  readonly #reach: () => StandReach;
  #limit = $derived.by(() => standLimit(this.#reach().profile, this.#reach().volts));
  #plan = $derived.by(() => planPoints(this.#reach().foreseen, this.#limit?.amps ?? Infinity));

  constructor(tag: () => number, instruments: () => readonly ShopInstrument[], reach: () => StandReach) {
    this.#tag = tag;
    this.#instruments = instruments;
    this.#reach = reach;
  }

  /** The most that the stand can take, where somebody said. */
  get limit(): ReturnType<typeof standLimit> {
    return this.#limit;
  }
  /** The points of a curve that a sweep takes. */
  get plan(): readonly PlannedPoint[] {
    return this.#plan;
  }

  /** Listens until ended. */
  listen(): () => void {
    this.listens = true;
    const end = hearInstruments(
      heard,
      (word) => this.#hear(word),
      (away) => {
        this.away = away;
        // What was read before says nothing of now, and what is back reads at once.
        if (away) this.#words = {};
        // What was stopped here while the server was away.
        const owed = [...this.#going].flatMap(([kind, after]) => (after < this.#stops ? [kind] : []));
        if (!away && owed.length > 0) void this.#halt(owed);
      },
    );
    return () => {
      this.#undertaken++;
      end();
    };
  }

  has(kind: InstrumentKind): boolean {
    return this.#instruments().some((one) => one.kind === kind);
  }
  get words(): Words {
    return this.#words;
  }
  /** Instruments that don't answer, in words. */
  get gone(): readonly string[] {
    return Object.values(this.#gone);
  }
  get rpm(): number | undefined {
    return this.#words.stand?.rpm;
  }
  /** Volts at the post, where the meter is on volts. */
  get volts(): number | null | undefined {
    const word = this.#words.multimeter;
    return word?.use === 'volts' ? word.value : undefined;
  }
  get amps(): number | null | undefined {
    return this.#words.clamp?.amps;
  }
  /** Whether it turns or is loaded, or may for all that is known here: what has to be stopped. */
  get live(): boolean {
    const isHeardLive = (this.rpm ?? 0) > 0 || this.#words.load?.on === true || this.#words.supply?.on === true;
    return isHeardLive || this.#going.size > 0;
  }

  /** Battery and command of a starter, on or off. */
  feed(on: boolean): Promise<boolean> {
    return this.#tell('supply', { on });
  }
  /** Holds a motor's pinion with so much, up to what this shop's brake takes; an arm that holds it fast has no measure. */
  async brake(newtonMetres: number): Promise<boolean> {
    const most = this.#reach().profile.brakeNewtonMetres;
    if (most !== undefined && newtonMetres > most && newtonMetres < heldNewtonMetres) {
      this.problem = `Not braked: ${newtonMetres.toFixed(1)} Nm, and this shop’s brake ends at ${most} Nm.`;
      return false;
    }
    return this.#tell('stand', { newtonMetres });
  }
  /** A pile on the bench battery; its clock is the battery test's. */
  pile(amps: number): Promise<boolean> {
    return amps > 0 ? this.#tell('load', { on: true, mode: 'current', level: amps }) : this.unload();
  }
  /** A regulator's command, as a share of the time. */
  command(duty: number, hertz: number | undefined): Promise<boolean> {
    return this.#tell('commander', { on: true, duty, hertz });
  }
  /** No command any more: the regulator's own set-point. */
  silence(): Promise<boolean> {
    return this.#tell('commander', { on: false });
  }
  /** Whether somebody feeds a starter. */
  get isFed(): boolean {
    return this.#words.supply?.on === true;
  }
  /** Whether a regulator is commanded. */
  get isCommanded(): boolean {
    return this.#words.commander?.on === true;
  }
  /** Mean, and lowest to highest, of what one instrument read in the last second, at rest or not. */
  lastSecond(figure: Figure): ReturnType<RecentFigures['lastSecond']> {
    return this.#recent.lastSecond(figure);
  }
  /** The mean of what one instrument read in the last second, where it rests. */
  resting(figure: Figure): number | undefined {
    const mean = this.#restOf(figure);
    return typeof mean === 'number' ? mean : undefined;
  }

  turn(rpm: number): Promise<boolean> {
    return this.#tell('stand', { rpm });
  }
  /** Draws whatever the unit gives at so many volts; not where the stand couldn't take what its plate promises. */
  async holdVolts(level: number): Promise<boolean> {
    const rpm = this.rpm ?? 0;
    return this.#bears(rpm > 0 ? this.#reach().foreseen(rpm) : 0) && this.#load('voltage', level);
  }
  /** A load that draws, held at other volts; its seconds go on from its first level. */
  levelTo(volts: number): Promise<boolean> {
    return this.#tell('load', { on: true, mode: 'voltage', level: volts });
  }
  /** Whether a load draws that is let go by itself. */
  get draws(): boolean {
    return this.#letGo !== undefined;
  }
  /** Load first, then speed: so that a unit past its regulator doesn't run up before it is loaded. */
  async turnLoaded(rpm: number, volts: number): Promise<boolean> {
    return this.#bears(this.#reach().foreseen(rpm)) && (await this.#load('voltage', volts)) && this.turn(rpm);
  }
  async drawAmps(level: number): Promise<boolean> {
    return this.#bears(level) && this.#load('current', level);
  }
  /** What draws is let go again after the seconds that this shop's load bears. */
  async #load(mode: 'current' | 'voltage', level: number): Promise<boolean> {
    if (!(await this.#tell('load', { on: true, mode, level }))) return false;
    this.#keepOn();
    const seconds = this.loadSeconds;
    const letGo = async () => {
      if (await this.unload()) this.problem = `The load was on for ${seconds} s: it is off again.`;
    };
    this.#letGo = setTimeout(() => void letGo(), 1000 * seconds);
    return true;
  }
  /** How long this shop's load bears to draw. */
  get loadSeconds(): number {
    return this.#reach().profile.loadSeconds ?? usualLoadSeconds;
  }
  /** Whether the stand can take so much; says so when not. */
  #bears(amps: number): boolean {
    const limit = this.#limit;
    if (!limit || amps <= limit.amps) return true;
    this.problem = `Not loaded: about ${amps.toFixed(0)} A, and this stand’s ${limit.by} ends at ${limit.amps.toFixed(0)} A. Take a lower speed or a smaller load.`;
    return false;
  }
  async unload(): Promise<boolean> {
    this.#keepOn();
    return this.#tell('load', { on: false });
  }
  /** Nothing is let go by itself any more. */
  #keepOn(): void {
    clearTimeout(this.#letGo);
    this.#letGo = undefined;
  }
  /** Alternating volts at the post, where the meter is on them. */
  get ripple(): number | null | undefined {
    const word = this.#words.multimeter;
    return word?.use === 'volts-ac' ? word.value : undefined;
  }
  readRipple(): Promise<boolean> {
    return this.#tell('multimeter', { use: 'volts-ac' });
  }
  readVolts(): Promise<boolean> {
    return this.#tell('multimeter', { use: 'volts' });
  }
  /** Load, drive, brake and supply off; nothing may hold this up. */
  async stop(): Promise<void> {
    this.#giveUp();
    await this.#halt(['load', 'stand', ...(this.isFed ? (['supply'] as const) : []), ...this.#going.keys()]);
  }

  /**
   * Whoever leaves stops what this screen set going, and nothing that another did; while the server or an instrument
   * is away, again and again for a minute.
   */
  async leave(): Promise<void> {
    this.#giveUp();
    for (let tries = 0; this.#going.size > 0 && tries < leavingTries; tries++) {
      if (tries > 0) await new Promise((done) => setTimeout(done, leavingPauseMilliseconds));
      await this.#halt([...this.#going.keys()]);
    }
  }

  /** What was about to be set, swept or read isn't any more. */
  #giveUp(): void {
    this.#undertaken++;
    this.#stops++;
    this.#keepOn();
    this.doing = '';
  }

  async #halt(kinds: readonly InstrumentKind[]): Promise<void> {
    const stop = this.#stops;
    const off = this.#instruments().filter(({ kind }) => kinds.includes(kind));
    const problems = await Promise.all(
      off.map(async ({ id, kind }) => {
        const problem = await tellInstrument(`/api/instruments/${id}/stop`, {}, notStopped);
        // What wasn't reached, or was set going again meanwhile, is still to be stopped.
        if (problem === undefined && (this.#going.get(kind) ?? stop) < stop) this.#going.delete(kind);
        return problem;
      }),
    );
    // A later stop has its own words.
    if (stop === this.#stops) this.problem = problems.find((problem) => problem !== undefined) ?? '';
  }

  /** The means of the last second, where all of it rests; else what doesn't. */
  get rested(): Readonly<Record<Figure, number>> | { readonly restless: string } {
    const means: Partial<Record<Figure, number>> = {};
    for (const figure of figures) {
      const mean = this.#restOf(figure);
      if (mean === 'missing') return { restless: `no ${figure} come in` };
      if (mean === 'moves') return { restless: `the ${figure} still move` };
      means[figure] = mean;
    }
    return means as Record<Figure, number>;
  }

  /** Which of a point's figures doesn't come in, if any. */
  get missing(): Figure | undefined {
    return figures.find((figure) => this.#restOf(figure) === 'missing');
  }

  /** What an instrument read just before it went away is no reading of now. */
  #restOf(figure: Figure): number | 'moves' | 'missing' {
    return this.#gone[source[figure]] ? 'missing' : this.#recent.rested(figure);
  }

  /** Takes a point from the instruments into the run's log. */
  takePoint(stand: RunStand): boolean {
    const rested = this.rested;
    if ('restless' in rested) {
      this.problem = `Not taken: ${rested.restless}.`;
      return false;
    }
    this.problem = '';
    stand.typed = {
      ...stand.typed,
      rpm: String(Math.round(rested.rpm)),
      volts: rested.volts.toFixed(2),
      amps: Math.max(0, rested.amps).toFixed(1),
    };
    return stand.addPoint();
  }

  /** Something done by itself begins, and what was done so ends; tells whether it goes on. */
  undertake(): () => boolean {
    const own = ++this.#undertaken;
    this.problem = '';
    return () => own === this.#undertaken;
  }
  /** Waits until something holds, so many seconds at most; whether it came about. */
  async until(holds: () => boolean, seconds: number, goesOn: () => boolean): Promise<boolean> {
    const end = Date.now() + 1000 * seconds;
    // What rested before the change says nothing about after it.
    this.#recent.forget();
    while (Date.now() < end && goesOn()) {
      await new Promise((done) => setTimeout(done, 100));
      if (holds()) return goesOn();
    }
    return false;
  }

  async #tell(kind: InstrumentKind, setting: Record<string, unknown>): Promise<boolean> {
    const instrument = this.#instruments().find((one) => one.kind === kind);
    if (!instrument) return false;
    const tag = this.#tag();
    const stops = this.#stops;
    if (setsGoing(setting)) {
      this.#going.set(kind, stops);
      // That it is clamped, and all that its light hangs on, goes first.
      await outbox.delivered(tag);
      if (stops !== this.#stops) return false;
    }
    const problem = await tellInstrument(`/api/instruments/${instrument.id}/set`, { ...setting, tag });
    // What was stopped meanwhile has its own words.
    if (stops === this.#stops) this.problem = problem ?? '';
    return !problem;
  }

  #hear(word: LiveWord): void {
    const kind = this.#instruments().find(({ id }) => id === word.instrument)?.kind as Heard | undefined;
    if (!kind) return;
    const { [kind]: _, ...others } = this.#gone;
    if (word.state === 'gone') {
      const name = this.#instruments().find(({ id }) => id === word.instrument)!.name;
      this.#gone = { ...others, [kind]: `${name}: ${word.why}` };
      const { [kind]: __, ...rest } = this.#words;
      this.#words = rest;
      return;
    }
    this.#gone = others;
    this.#words = { ...this.#words, [kind]: word };
    this.#recent.hear(word);
    void this.#watchVolts();
  }

  /** Past its regulator and without load a unit runs up faster than anybody looks: drive and load off. */
  async #watchVolts(): Promise<void> {
    const { mostVolts = Infinity } = this.#reach();
    const volts = this.volts ?? 0;
    // What another screen turns is another's, a unit of other volts perhaps; what was stopped is asked but once.
    const turnedHere = (this.#going.get('stand') ?? -1) >= this.#stops;
    if (!turnedHere || volts <= mostVolts || (this.rpm ?? 0) <= standingRpm) return;
    await this.stop();
    // What hinders the stop is worth more than what led to it.
    this.problem ||= `The post ran up to ${volts.toFixed(1)} V: drive and load are off. Load first, then the jumper.`;
  }
}
