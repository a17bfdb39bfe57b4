import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  benchSupply,
  insulationTester,
  lampAmps,
  type OhmsRange,
  rangeFor,
  type Setup,
  testLamp,
} from '../../src/instruments/index.ts';
import { HiddenUnit, type Measured } from '../../src/practice/index.ts';

/** A deck written by hand: its parameters, those of a sound unit, and its circuit. */
export interface Deck {
  readonly nominal: Values;
  readonly circuit: string;
}
export type Values = ReadonlyMap<string, number>;

const suffixes = { '': 1, meg: 1e6, g: 1e9, k: 1e3, m: 1e-3, u: 1e-6, n: 1e-9 } as const;

export function readDeck(file: string): Deck {
  const text = readFileSync(new URL(file, import.meta.url), 'utf8');
  const parameters = text.match(/^\.param.*$/gm)!.join('\n');
  const nominal = [...`${parameters}\n`.matchAll(/(\w+)=([0-9.e]+)(meg|g|k|m|u|n)?(?=\s)/g)].map(
    ([, name, figure, suffix = '']) => [name!, Number(figure) * suffixes[suffix as keyof typeof suffixes]] as const,
  );
  return { nominal: new Map(nominal), circuit: text.replaceAll(/^\.param.*$/gm, '') };
}

/** A circuit with these parameters before it. */
export const withValues = (values: Values, circuit: string): string =>
  [...[...values].map(([name, value]) => `.param ${name}=${value.toExponential(9)}`), circuit].join('\n');

/**
 * A hidden unit whose readings come from ngspice and a deck written by hand: neither the program's network nor its
 * solver has a part in them. Of the instruments it takes the figures, not the arithmetic.
 */
export abstract class DeckedUnit extends HiddenUnit {
  protected abstract readonly deck: Deck;
  #unit: string | undefined;
  readonly #answers = new Map<string, number>();

  /** The deck's node for a place that a check names. */
  protected abstract pinOf(place: string): string;
  /** How many times its nominal value a parameter has on this unit while sound. */
  protected abstract factorOf(name: string): number;
  /** Other values that a fault gives to parameters, by those of the unit as it is. */
  protected abstract changedBy(species: string, severity: number, place: string, values: Values): [string, number][];
  /** The deck's line for the unit in a state of assembly. */
  protected abstract placed(assembly: string): string;

  /** The deck with these parameters. */
  protected written(values: Values): string {
    return withValues(values, this.deck.circuit);
  }

  /** This unit's parameters: its spreads first, then what its faults change. */
  protected values(): Values {
    const values = new Map([...this.deck.nominal].map(([name, value]) => [name, value * this.factorOf(name)]));
    for (const { fault, severity } of this.hidden)
      for (const [name, value] of this.changedBy(fault.species, severity, fault.place, values)) values.set(name, value);
    return values;
  }

  override measured(setup: Setup, assembly: string): Measured {
    const { meter } = this;
    switch (setup.function) {
      case 'ohms':
        return this.#ohms(assembly, setup);
      case 'lamp':
        return this.#lamp(assembly, setup);
      case 'diode': {
        const { sourceVolts, sourceOhms, fullScale } = meter.diode;
        const volts = this.#across(assembly, setup, sourceVolts, sourceOhms + meter.leadOhms);
        const amps = (sourceVolts - volts) / (sourceOhms + meter.leadOhms);
        return { value: volts + amps * meter.leadOhms, range: meter.diode, fullScale };
      }
      case 'insulation': {
        const { sourceVolts, sourceOhms, fullScale } = insulationTester;
        const volts = this.#across(assembly, setup, sourceVolts, sourceOhms);
        return { value: ohmsOf(volts, sourceVolts, sourceOhms), range: insulationTester, fullScale };
      }
      default: {
        const volts = this.#fed(assembly, setup);
        return { value: volts, range: rangeFor(meter.volts, volts), fullScale: meter.volts.at(-1)!.fullScale };
      }
    }
  }

  #ohms(assembly: string, setup: Setup): Measured {
    const { meter } = this;
    const on = ({ sourceVolts, sourceOhms }: OhmsRange): number => {
      const ohms = sourceOhms + meter.leadOhms;
      return ohmsOf(this.#across(assembly, setup, sourceVolts, ohms), sourceVolts, ohms) + meter.leadOhms;
    };
    const climbed = (ranges: readonly OhmsRange[]): Measured => {
      const range = ranges.find((r) => on(r) <= r.fullScale) ?? ranges.at(-1)!;
      return { value: on(range), range, fullScale: meter.ohms.at(-1)!.fullScale };
    };
    const { held } = setup;
    if (held === 'lowest') {
      const [range] = meter.ohms;
      return { value: on(range!), range, fullScale: range!.fullScale };
    }
    const kept = held && climbed(meter.ohms.filter(({ fullScale }) => fullScale >= held.fullScale));
    return kept && kept.value >= held.freeBelow ? kept : climbed(meter.ohms);
  }

  /** The lamp in series with what the lowest ohms range finds between the same places. */
  #lamp(assembly: string, setup: Setup): Measured {
    const { value: ohms, range } = this.#ohms(assembly, { ...setup, held: 'lowest' });
    let [low, high] = [0, testLamp.supplyVolts];
    for (let halving = 0; halving < 60; halving++) {
      const volts = (low + high) / 2;
      if (volts + ohms * lampAmps(testLamp, volts) < testLamp.supplyVolts) low = volts;
      else high = volts;
    }
    return { value: lampAmps(testLamp, low) / testLamp.ratedAmps, range, fullScale: Infinity };
  }

  /** Volts between the probes when a source behind a resistance sits between them. */
  #across(assembly: string, { red, black }: Setup, volts: number, ohms: number): number {
    return this.#answer(assembly, red, black, [
      `Vmeter source ${this.pinOf(black)} ${volts}`,
      `Rmeter source ${this.pinOf(red)} ${ohms}`,
    ]);
  }

  /** Volts between the probes of a voltmeter while the bench supply feeds the unit. */
  #fed(assembly: string, { red, black, feed }: Setup): number {
    return this.#answer(assembly, red, black, [
      `Vsupply source ${this.pinOf(feed!.minus)} ${benchSupply.volts}`,
      `Rsupply source ${this.pinOf(feed!.plus)} ${feed!.seriesOhms}`,
      `Rmeter ${this.pinOf(red)} ${this.pinOf(black)} ${this.meter.voltsInputOhms}`,
    ]);
  }

  #answer(assembly: string, red: string, black: string, instrument: readonly string[]): number {
    const key = [assembly, ...instrument].join('\n');
    let found = this.#answers.get(key);
    if (found === undefined) {
      const volts = (place: string) => (this.pinOf(place) === '0' ? '0' : `v(${this.pinOf(place)})`);
      found = operatingPoint(
        this.celsius,
        [(this.#unit ??= this.written(this.values())), this.placed(assembly), ...instrument],
        `${volts(red)}-${volts(black)}`,
      );
      this.#answers.set(key, found);
    }
    return found;
  }
}

function ohmsOf(volts: number, sourceVolts: number, sourceOhms: number): number {
  const amps = (sourceVolts - volts) / sourceOhms;
  return amps > 0 ? volts / amps : 1e12;
}

/**
 * Options for ngspice, one after the other until it finds an operating point: what is off hangs on 1e13 ohms behind
 * diodes of nanoamperes, where it may not settle at the closest tolerances. Newton's last step is far within the loosest
 * (seen: a reading of 3.5 V moves by less than 1 µV), and a hundred gigohms across each junction (its gmin) are nothing
 * beside a leak of megohms.
 */
const attempts = [
  'reltol=1e-6 abstol=1e-15 vntol=1e-8',
  'reltol=1e-5 abstol=1e-13 vntol=1e-7',
  'reltol=1e-4 abstol=1e-12 vntol=1e-6 itl1=1000',
  'reltol=1e-3 abstol=1e-11 vntol=1e-5 itl1=1000',
].flatMap((tolerances) => ['1e-12', '3e-12', '1e-11'].map((gmin) => `${tolerances} gmin=${gmin}`));

/** A quantity at the operating point of a deck. */
export function operatingPoint(celsius: number, lines: readonly string[], quantity: string): number {
  for (const attempt of attempts) {
    const control = ['.control', 'set numdgt=12', 'op', `let found = ${quantity}`, 'print found', 'quit 0', '.endc'];
    const options = `.options temp=${celsius} tnom=20 ${attempt}`;
    const found = Number(/^found = (\S+)$/m.exec(inSpice([options, ...lines, ...control]))?.[1]);
    if (Number.isFinite(found)) return found;
  }
  throw new Error(`ngspice found no operating point for\n${lines.join('\n')}`);
}

/** What ngspice prints of a deck. */
function inSpice(lines: readonly string[]): string {
  const folder = mkdtempSync(join(tmpdir(), 'refectum-deck-'));
  try {
    const file = join(folder, 'bench.cir');
    writeFileSync(file, ['* a unit on the bench', ...lines, '.end', ''].join('\n'));
    return spawnSync('ngspice', ['-b', file], { encoding: 'utf8' }).stdout;
  } finally {
    rmSync(folder, { recursive: true });
  }
}
