import { type Check, findingsOf, type Outcome, type Word as Verdict } from '@refectum/core/checks';
import { flicker, type Multimeter, type Range, rangesOf, Steadiness } from '@refectum/core/instruments';
import { formatQuantity } from '@refectum/core/quantity';
import { type LiveWord, type MeterUse, meterUses, type ShopInstrument } from '../instruments.ts';
import type { Bench } from './bench.svelte.ts';
import { hearInstruments, tellInstrument } from './live-words.ts';
import { allowSound, playWord } from './tones.ts';

/** An open counts as a reading by itself after so long, where that is wanted. */
const openSeconds = 4;
/** Below this a voltmeter may be touching nothing. */
const deadVolts = 0.02;
/** So long without rest, and it is said. */
const patienceSeconds = 4;

type Word = Extract<LiveWord, { kind: 'multimeter' }>;

/** How a check is read by a meter at a port, and on what ranges; undefined for one that isn't. */
interface Use {
  readonly use: MeterUse;
  readonly ranges: readonly Range[];
  /** Full scale of the range to hold; the meter's own choice where none is. */
  readonly from?: number;
  /** Below this it is the meter's choice again. */
  readonly freeBelow?: number;
}

function useOf(check: Check, meter: Multimeter): Use | undefined {
  const { method } = check;
  if (method.kind === 'leads') return { use: 'ohms', ranges: meter.ohms };
  if (method.kind === 'run') return check.unit === 'volts' ? { use: 'volts', ranges: meter.volts } : undefined;
  if (method.kind !== 'meter') return undefined;
  const { setup } = method;
  const ranges = rangesOf(meter, setup.function);
  if (setup.function === 'diode') return { use: 'diode', ranges };
  if (setup.function === 'volts' || setup.function === 'drop') return { use: 'volts', ranges };
  if (setup.function !== 'ohms') return undefined;
  const { held } = setup;
  if (held === 'lowest') return { use: 'ohms', ranges, from: meter.ohms[0]!.fullScale };
  if (!held) return { use: 'ohms', ranges };
  const from = meter.ohms.find(({ fullScale }) => fullScale >= held.fullScale)?.fullScale;
  return { use: 'ohms', ranges, ...(from ? { from } : {}), freeBelow: held.freeBelow };
}

/**
 * The technician's third hand: takes a reading by itself once the probes are held still, and goes on to the next check.
 * It waits until the probes have left the last point, so that nothing is taken twice or of the wrong place.
 */
export class HandsFree {
  readonly #bench: () => Bench;
  #instrument = $state.raw<ShopInstrument | undefined>();
  /** What is to be said now. */
  said = $state('');
  /** Newest word of the meter. */
  word = $state.raw<Word | undefined>();
  /** What was taken last, and its verdict. */
  taken = $state.raw<{ readonly shown: string; readonly word: Verdict } | undefined>();
  away = $state(false);
  /** Whether an open counts by itself after a while. */
  openCounts = $state(false);
  /** The meter is on another function than the check wants. */
  wrongUse = $state(false);
  #end: (() => void) | undefined;
  #at: Check | undefined;
  #use: Use | undefined;
  #held: number | undefined;
  #steadiness = new Steadiness([]);
  /** Whether the probes have left the last point. */
  #fresh = true;
  /** The check for which the tips were last seen open, and on what the meter was then; heard while it is busy too. */
  #opened: { readonly check: string | undefined; readonly use: string } | undefined;
  /** Whether the tips have met anything since the last open that was taken. */
  #touched = false;
  #rest: number | undefined;
  #movingSince: number | undefined;
  #hold: ReturnType<Steadiness['feed']> = { kind: 'moving' };
  #busy = false;
  #gone = false;

  constructor(bench: () => Bench) {
    this.#bench = bench;
  }

  get on(): boolean {
    return this.#instrument !== undefined;
  }

  async start(instrument: ShopInstrument): Promise<void> {
    allowSound();
    this.stop();
    this.#instrument = instrument;
    this.said = `Listening to ${instrument.name}…`;
    if (instrument.meter) await this.#bench().useMeter(instrument.meter);
    this.#end = hearInstruments(
      ['multimeter'],
      (word) => {
        if (word.instrument === instrument.id) void this.#hear(word);
      },
      (away) => (this.away = away),
    );
  }

  stop(): void {
    this.#end?.();
    this.#end = undefined;
    this.#instrument = undefined;
    this.#at = undefined;
    this.#use = undefined;
    this.#gone = false;
    this.word = this.taken = undefined;
    this.said = '';
    this.wrongUse = this.away = false;
  }

  /** A foot's or a finger's word: take what stands there now, an open too. */
  async pedal(): Promise<void> {
    const { check } = this.#bench();
    if (!this.#instrument || !check || !this.#use || this.#busy || check.id !== this.#at?.id) return;
    if (this.#hold.kind === 'moving')
      this.said = 'Unsteady still: hold the probes quiet, or key t if it changes when touched.';
    else if (this.#hold.kind === 'steady') await this.#take(check, this.#hold.value);
    else await this.#takeOpen(check);
  }

  /** Sets the meter to what the check at hand wants. */
  async setMeter(): Promise<void> {
    if (!this.#instrument || !this.#use) return;
    const range = this.#held === undefined ? {} : { range: this.#held };
    const problem = await tellInstrument(`/api/instruments/${this.#instrument.id}/set`, {
      use: this.#use.use,
      ...range,
    });
    if (problem) this.said = problem;
  }

  async #hear(word: LiveWord): Promise<void> {
    if (!this.#instrument) return;
    if (word.state !== 'gone' && word.kind === 'multimeter') this.#noteOpen(word);
    if (this.#busy) return;
    if (word.state === 'gone') {
      this.word = undefined;
      this.#steadiness = new Steadiness(this.#use?.ranges ?? []);
      this.#gone = true;
      this.said = `${this.#instrument.name}: ${word.why}. Readings can be typed meanwhile; it goes on when it is back.`;
      return;
    }
    if (word.kind !== 'multimeter') return;
    if (this.#gone) {
      // Switched on anew it is on whatever it wakes up on.
      this.#gone = false;
      await this.setMeter();
      return;
    }
    this.word = word;
    const { check, meter } = this.#bench();
    if (!check || !meter) return;
    if (check.id !== this.#at?.id) {
      if (await this.#putAside(check, meter)) return;
      return this.#begin(check, meter);
    }
    if (!this.#use) {
      this.said = 'This one is not the meter’s: type it, or choose below.';
      return;
    }
    this.wrongUse = word.use !== this.#use.use;
    if (this.wrongUse) {
      const now = word.use === 'other' ? 'something else' : meterUses[word.use];
      this.said = `The meter is on ${now}; this check wants ${meterUses[this.#use.use]}.`;
      return;
    }
    await this.#follow(check, word);
  }

  /** What is advised but not the meter's waits, as long as the advice has something for the meter as the unit is now. */
  async #putAside(check: Check, meter: Multimeter): Promise<boolean> {
    const bench = this.#bench();
    if (bench.picked || useOf(check, meter)) return false;
    const takes = (id: string): boolean => {
      const other = bench.checks.find((one) => one.id === id);
      return (
        other !== undefined && bench.stateFor(other) === bench.setting.assembly && useOf(other, meter) !== undefined
      );
    };
    const next = bench.outlook?.next.find((one) => takes(one.check));
    if (!next) return false;
    this.#busy = true;
    await bench.pick(next.check);
    this.#busy = false;
    return true;
  }

  /** Another check: the meter is set for it, and the probes have to leave where they are. */
  async #begin(check: Check, meter: Multimeter): Promise<void> {
    const first = this.#at === undefined;
    this.#busy = true;
    const use = findingsOf(check).length ? undefined : useOf(check, meter);
    const sameUse = use?.use === this.#use?.use && use?.from === this.#held;
    this.#at = check;
    this.#use = use;
    this.#held = use?.from;
    this.#steadiness = new Steadiness(use?.ranges ?? []);
    if (!sameUse) this.#rest = undefined;
    this.#movingSince = undefined;
    this.#hold = { kind: 'moving' };
    this.said = use ? 'Put the probes where the drawing shows them.' : '';
    if (use && !sameUse) await this.setMeter();
    // Where the probes are still belongs to the last check.
    this.#fresh = first || this.#hasOpened();
    this.#busy = false;
  }

  /** A number read for another check since: the tips may be on its point. */
  #noteOpen({ value, use }: Word): void {
    const check = this.#bench().check?.id;
    if (value === null) this.#opened = { check, use };
    else if (this.#opened?.check !== check) this.#opened = undefined;
  }

  /** Whether the tips were seen open since this check is at hand. */
  #hasOpened(): boolean {
    return this.#opened?.check === this.#at?.id && this.#opened?.use === this.#use?.use;
  }

  async #follow(check: Check, { value, at }: Word): Promise<void> {
    const seconds = at / 1000;
    this.#hold = this.#steadiness.feed({ seconds, value: value ?? Infinity });
    const { ranges } = this.#use!;
    if (this.#hold.kind === 'open') {
      this.#fresh = true;
      this.#movingSince = undefined;
      const counts = this.openCounts && this.#touched;
      if (counts && this.#hold.seconds >= openSeconds) return this.#takeOpen(check);
      const left = Math.ceil(openSeconds - this.#hold.seconds);
      this.said = counts
        ? `Open: counts as OL in ${left} s.`
        : 'Open. If the probes are on the point, space takes it as OL.';
      return;
    }
    this.#touched = true;
    if (!this.#fresh && this.#rest !== undefined && Math.abs(value! - this.#rest) > flicker(ranges, this.#rest))
      this.#fresh = true;
    if (this.#hold.kind === 'moving') {
      this.#movingSince ??= seconds;
      const long = seconds - this.#movingSince > patienceSeconds;
      this.said = long
        ? 'Unsteady: scrape the point clean, hold still. Key t if it changes when the part is touched.'
        : 'Hold still…';
      return;
    }
    this.#movingSince = undefined;
    if (!this.#fresh) {
      this.#rest ??= this.#hold.value;
      this.said = 'Lift the probes, then the next point.';
      return;
    }
    if (this.#use!.use === 'volts' && Math.abs(this.#hold.value) < deadVolts) {
      // Tips in the air read the same.
      this.said = 'No volts. If the probes are on the point, space takes it.';
      return;
    }
    await this.#take(check, this.#hold.value);
  }

  async #take(check: Check, shown: number): Promise<void> {
    const { ranges, freeBelow } = this.#use!;
    if (this.#held !== undefined && freeBelow !== undefined && shown < freeBelow) return this.#holdRange(undefined);
    if (shown < -flicker(ranges, shown)) {
      this.said = 'Below zero: are red and black exchanged?';
      return;
    }
    const value = Number(Math.max(0, shown).toPrecision(6));
    await this.#record({ kind: 'value', value }, `${formatQuantity(value, check.unit)}, held`, shown);
  }

  async #takeOpen(check: Check): Promise<void> {
    if (check.method.kind === 'leads') {
      this.said = 'The leads are open: hold the tips against each other.';
      return;
    }
    if (check.unit === 'volts' && this.#use!.use === 'volts') {
      this.said = 'Over the meter’s highest range: look what is on these volts.';
      return;
    }
    // Over a range held by hand is not yet over the meter's highest.
    const higher = this.#use!.ranges.find(({ fullScale }) => fullScale > (this.#held ?? Infinity));
    if (higher && this.#use!.freeBelow !== undefined) {
      this.said = 'Over this range: the next one…';
      return this.#holdRange(higher.fullScale);
    }
    await this.#record({ kind: 'over-range' }, 'OL, held', undefined);
  }

  /** Another range for the same check; what is on it has to settle anew. */
  async #holdRange(fullScale: number | undefined): Promise<void> {
    this.#busy = true;
    this.#held = fullScale;
    this.#steadiness = new Steadiness(this.#use!.ranges);
    this.#hold = { kind: 'moving' };
    await this.setMeter();
    this.#busy = false;
  }

  async #record(outcome: Outcome, text: string, rest: number | undefined): Promise<void> {
    this.#busy = true;
    const bench = this.#bench();
    this.#opened = undefined;
    const taken = await bench.take(outcome, text);
    this.#busy = false;
    if (!taken) {
      this.said = bench.problem ?? 'Not taken.';
      return;
    }
    this.#fresh = this.#hasOpened();
    this.#touched = rest !== undefined;
    this.#rest = rest;
    const judged = bench.diagnosis?.readings.find(({ id }) => id === bench.standing.at(-1)?.id);
    if (!judged) return;
    playWord(judged.word);
    this.taken = { shown: judged.shown, word: judged.word };
  }
}
