import { type Multimeter, type Range, rangeFor, rangesOf } from '@refectum/core/instruments';
import type { SimulatedBench } from '../bench/index.ts';
import {
  booleanOf,
  type Command,
  isWord,
  nr3,
  numberOf,
  overRange,
  ScpiError,
  ScpiInstrument,
  stringOf,
} from '../scpi/index.ts';
import { Converter, wait } from './measuring.ts';
import type { Supply } from './supply.ts';

/** Functions by their SCPI names, as FUNCtion? answers them. */
const functions = { VOLT: 'VOLTage[:DC]', 'VOLT:AC': 'VOLTage:AC', RES: 'RESistance', DIOD: 'DIODe' } as const;
type MeterUse = keyof typeof functions;

const integrationMilliseconds = 100;
const autorangeMilliseconds = 300;
/** How fast a reading comes to rest once the tips sit: volts across a junction that charges, a hand that steadies. */
const settleSeconds = 0.12;
const settleShare = 0.25;

/** A multimeter between the probes, by the kind that the scenario names. */
export class SimulatedMultimeter {
  readonly scpi: ScpiInstrument;
  readonly #bench: SimulatedBench;
  readonly #supply: Supply;
  readonly #converter: Converter;
  #use: MeterUse = 'VOLT';
  #held: number | undefined;
  #lastRange: number | undefined;
  #last: number | undefined;
  /** How many times noisier than it should be. */
  noise = 1;

  constructor(bench: SimulatedBench, supply: Supply) {
    this.#bench = bench;
    this.#supply = supply;
    this.#converter = new Converter(bench.normal);
    this.scpi = new ScpiInstrument('Refectum,Simulated multimeter,0,0.2', this.#commands(), () => this.#choose('VOLT'));
  }

  /** As if somebody turned the knob. */
  turnKnob(use: string): void {
    this.#choose(this.#useOf(use));
  }

  #choose(use: MeterUse, held?: number): void {
    this.#use = use;
    this.#held = held;
    this.#last = undefined;
  }

  #useOf(text: string): MeterUse {
    const found = (Object.keys(functions) as MeterUse[]).find((use) => isWord(text, functions[use]));
    if (!found) throw new ScpiError('-224', text);
    return found;
  }

  #commands(): Command[] {
    const uses = Object.entries(functions) as [MeterUse, string][];
    /** A range by its highest reading, or a word for the meter's own choice. */
    const heldOf = (use: MeterUse, text: string | undefined): number | undefined => {
      if (text === undefined || isWord(text, 'DEFault') || /^auto$/i.test(text)) return undefined;
      const ranges = this.#ranges(use);
      const most = ranges.at(-1)!.fullScale;
      const unit = use === 'RES' ? 'OHM' : 'V';
      const wanted = numberOf(text, { unit, least: 0, most, usual: most });
      return rangeFor(ranges, wanted).fullScale;
    };
    return [
      ...uses.flatMap(([use, header]): Command[] => [
        {
          header: `CONFigure[:SCALar]:${header}`,
          takes: [0, 2],
          run: ([range]) => void this.#choose(use, heldOf(use, range)),
        },
        {
          header: `MEASure[:SCALar]:${header}?`,
          takes: [0, 2],
          run: ([range]) => {
            this.#choose(use, heldOf(use, range));
            return this.#read();
          },
        },
        {
          header: `[SENSe:]${header}:RANGe[:UPPer]`,
          takes: [1, 1],
          run: ([range]) => {
            const held = heldOf(use, range);
            if (this.#use === use) this.#held = held;
          },
        },
        {
          header: `[SENSe:]${header}:RANGe:AUTO`,
          takes: [1, 1],
          run: ([on]) => {
            if (this.#use === use && booleanOf(on!)) this.#held = undefined;
          },
        },
        { header: `[SENSe:]${header}:RANGe:AUTO?`, run: () => (this.#held === undefined ? '1' : '0') },
      ]),
      {
        header: '[SENSe:]FUNCtion[:ON]',
        takes: [1, 1],
        run: ([text]) => {
          const name = stringOf(text!);
          if (name === undefined) throw new ScpiError('-151', text);
          this.#choose(this.#useOf(name));
        },
      },
      { header: '[SENSe:]FUNCtion[:ON]?', run: () => `"${this.#use}"` },
      {
        header: 'CONFigure?',
        run: () => `"${this.#use} ${this.#held === undefined ? 'DEF' : nr3(this.#held)}"`,
      },
      { header: 'READ?', run: () => this.#read() },
      { header: 'INITiate[:IMMediate]', run: async () => void (await this.#read()) },
      {
        header: 'FETCh?',
        run: () => {
          if (this.#last === undefined) throw new ScpiError('-230');
          return nr3(this.#last);
        },
      },
    ];
  }

  #ranges(use: MeterUse): readonly Range[] {
    const { meter } = this.#bench;
    return rangesOf(meter, use === 'RES' ? 'ohms' : use === 'DIOD' ? 'diode' : 'volts');
  }

  async #read(): Promise<string> {
    await wait(integrationMilliseconds);
    const { value, range, fullScale } = this.#terminals();
    const ranged = this.#held ?? range.fullScale;
    if (this.#lastRange !== undefined && ranged !== this.#lastRange && value <= fullScale)
      await wait(autorangeMilliseconds);
    this.#lastRange = ranged;
    this.#last = value > fullScale ? overRange : this.#converter.shown(value, range, fullScale, this.noise);
    return nr3(this.#last);
  }

  /** What is really there, and the range it is read on. */
  #terminals(): { value: number; range: Range; fullScale: number } {
    const ranges = this.#ranges(this.#use);
    const on = (value: number, fullScale = this.#held ?? ranges.at(-1)!.fullScale) => {
      const range = this.#held === undefined ? rangeFor(ranges, value) : rangeFor(ranges, this.#held);
      return { value, range, fullScale };
    };
    const bench = this.#bench;
    const { contact } = bench;
    const nothing = on(this.#use.startsWith('VOLT') ? 0 : Infinity);
    if (contact.kind !== 'held') return contact.kind === 'open' ? nothing : on(this.#flicker());
    const meter = this.#meterAsSet();
    if (bench.hands.together) return on(this.#use === 'RES' ? bench.leadOhms(meter) : 0);
    if (this.#use.startsWith('VOLT')) return on(this.#volts());
    if (bench.running || bench.fed?.isFed) return on(Infinity);
    const shown = bench.atRest(this.#use === 'RES' ? 'ohms' : 'diode', meter, false);
    const value = shown.value * (1 + settleShare * Math.exp(-contact.seconds / settleSeconds));
    return { value, range: shown.range!, fullScale: shown.fullScale };
  }

  /** The meter with its ohms held on one range, where somebody holds them. */
  #meterAsSet(): Multimeter {
    const { meter } = this.#bench;
    if (this.#use !== 'RES' || this.#held === undefined) return meter;
    return { ...meter, ohms: meter.ohms.filter(({ fullScale }) => fullScale === this.#held) };
  }

  #flicker(): number {
    return this.#use.startsWith('VOLT') ? 0 : Math.abs(this.#bench.normal()) * 1e3;
  }

  #volts(): number {
    const bench = this.#bench;
    const { run } = bench;
    const { red } = bench.hands;
    const alternating = this.#use === 'VOLT:AC';
    if (run) {
      const seen = red?.startsWith('leg:') ? run.tap : red === 'exciter' && run.exciter ? run.exciter : run.volts;
      if (!alternating) return red === 'case' ? -seen.mean : seen.mean;
      const { bandwidthHertz } = bench.meter;
      const squares = seen.rms.map((rms, n) => ((n + 1) * run.electricalHertz <= bandwidthHertz ? rms ** 2 : 0));
      return Math.sqrt(squares.reduce((sum, one) => sum + one, 0));
    }
    if (alternating) return 0;
    if (bench.clampedVolts !== undefined) return bench.clampedVolts;
    if (!bench.hands.feed) return 0;
    return bench.atRest('drop', bench.meter, this.#supply.on).value;
  }
}
