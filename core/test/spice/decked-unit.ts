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

const deck = readFileSync(new URL('claw-pole.cir', import.meta.url), 'utf8');
const parameters = deck.match(/^\.param.*$/gm)!.join('\n');
const nominal = new Map(
  [...`${parameters}\n`.matchAll(/(\w+)=([0-9.]+)(meg|g|k|m|u|n)?(?=\s)/g)].map(([, name, figure, suffix = '']) => [
    name!,
    Number(figure) * { '': 1, meg: 1e6, g: 1e9, k: 1e3, m: 1e-3, u: 1e-6, n: 1e-9 }[suffix]!,
  ]),
);

const circuit = deck.replaceAll(/^\.param.*$/gm, '');

/** The circuit without the diode, and its model, whose resistance in series has this name. */
function withoutDiode(lines: string, resistance: string): string {
  const diode = `d${resistance.slice(1)}`;
  const left = lines.split('\n').filter((line) => {
    const words = line.toLowerCase().split(' ');
    return words[0] !== diode && !(words[0] === '.model' && words[1] === diode);
  });
  if (left.length !== lines.split('\n').length - 2) throw new Error(`the deck has no diode “${diode}” to leave out`);
  return left.join('\n');
}

/** The deck's node for a place that a check names. */
const pins = ['out', 'ga', 'gb', 'gc', 'la', 'lb', 'lc', 'st', 'exc', 'fld', 'r1', 'r2', 'h1', 'h2'] as const;
function pinOf(place: string): string {
  const named: Readonly<Record<string, string>> = {
    output: 'out',
    case: '0',
    exciter: 'exc',
    field: 'fld',
    'ring-1': 'r1',
    'ring-2': 'r2',
    'holder-1': 'h1',
    'holder-2': 'h2',
  };
  const phase = /^(leg|lead):([ABC])$/.exec(place);
  const pin = phase ? `${phase[1] === 'leg' ? 'g' : 'l'}${phase[2]!.toLowerCase()}` : named[place];
  if (!pin) throw new Error(`the deck has no place “${place}”`);
  return pin;
}

/** A+ is written ap in the deck. */
const short = (place: string): string => place.toLowerCase().replace('+', 'p').replace('-', 'n');

/** What a fault is in the deck: other values of its parameters, given those of the unit when sound. Torn means endless. */
const faultValues: Readonly<
  Record<string, (severity: number, place: string, of: (name: string) => number) => Readonly<Record<string, number>>>
> = {
  'diode-open': (_, at) => ({ [`r${short(at)}`]: Infinity, [`l${short(at)}`]: 1e10 }),
  'diode-shorted': (ohms, at) => ({ [`l${short(at)}`]: ohms }),
  'diode-leaky': (ohms, at) => ({ [`l${short(at)}`]: ohms }),
  'exciter-open': (_, at) => ({ [`rx${short(at)}`]: Infinity, [`lx${short(at)}`]: 1e10 }),
  'exciter-shorted': (ohms, at) => ({ [`lx${short(at)}`]: ohms }),
  'output-leak': (ohms) => ({ post: ohms }),
  'rotor-open': () => ({ rotor: 1e9 }),
  'rotor-turns': (share, _, of) => ({ rotor: of('rotor') * (1 - share) }),
  'rotor-core': (ohms) => ({ kr: ohms }),
  'brush-worn': (ohms, _, of) => ({ b1: of('b1') + ohms }),
  'brush-contact': (ohms, _, of) => ({ b2: of('b2') + ohms }),
  'rings-dirty': (ohms, _, of) => ({ b1: of('b1') + ohms / 2, b2: of('b2') + ohms / 2 }),
  'stator-open': (_, at) => ({ [`w${short(at)}`]: 1e9 }),
  'stator-turns': (share, at, of) => ({ [`w${short(at)}`]: of(`w${short(at)}`) * (1 - share) }),
  // At one end of one phase, as it happens.
  'stator-core': (ohms) => ({ kb: ohms }),
  'bearing-worn': () => ({}),
  'pulley-worn': () => ({}),
  'fan-damaged': () => ({}),
  'shaft-damaged': () => ({}),
  'case-cracked': () => ({}),
  'terminals-burnt': () => ({}),
};

/** What two values of one unit have in common, by the names of the study's spreads. */
function spreadOf(name: string): readonly string[] {
  const place = (at: string) => at.replace('p', '+').replace('n', '-').toUpperCase();
  if (/^w[abc]$/.test(name)) return ['stator', `stator:${place(name[1]!)}`];
  if (/^l[abc][pn]$/.test(name)) return ['leak', `leak:${place(name.slice(1))}`];
  if (/^lx[abc]$/.test(name)) return ['leak', `exciter-leak:${place(name[2]!)}`];
  if (/^i[abc][pn]$/.test(name)) return ['junction', `junction:${place(name.slice(1))}`];
  if (/^ix[abc]$/.test(name)) return ['exciter', `exciter:${place(name[2]!)}`];
  if (/^k[abc]$/.test(name)) return ['insulation-core'];
  const one: Readonly<Record<string, string>> = {
    rotor: 'rotor',
    b1: 'brushes',
    b2: 'brushes',
    kr: 'insulation-rotor-core',
    post: 'insulation-output',
    sense: 'regulator',
    drive: 'regulator-drive',
  };
  return one[name] ? [one[name]] : [];
}

/**
 * A hidden unit whose readings come from ngspice and the deck written by hand in claw-pole.cir: neither the program's
 * network nor its solver has a part in them. Of the instruments it takes the figures, not the arithmetic.
 */
export class DeckedUnit extends HiddenUnit {
  #deck: string | undefined;
  readonly #answers = new Map<string, number>();

  /** The deck of this unit: its spreads first, then what its faults change; a diode behind a torn bond is left out. */
  #unit(): string {
    if (this.#deck !== undefined) return this.#deck;
    const values = new Map<string, number>();
    for (const [name, value] of nominal) {
      const spread = spreadOf(name);
      const ideality = /^i[abc][pn]$/.test(name) ? 1.6 : 1.7;
      const factor = name.startsWith('i') ? this.saturationFactor(spread, ideality) : this.ohmsFactor(spread);
      values.set(name, value * factor);
    }
    for (const { fault, severity } of this.hidden) {
      const changed = faultValues[fault.species]!(severity, fault.place, (name) => values.get(name)!);
      for (const [name, value] of Object.entries(changed)) values.set(name, value);
    }
    const torn = [...values].filter(([, value]) => value === Infinity).map(([name]) => name);
    this.#deck = [
      ...[...values]
        .filter(([name]) => !torn.includes(name))
        .map(([name, value]) => `.param ${name}=${value.toExponential(9)}`),
      torn.reduce(withoutDiode, circuit),
    ].join('\n');
    return this.#deck;
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
      `Vmeter source ${pinOf(black)} ${volts}`,
      `Rmeter source ${pinOf(red)} ${ohms}`,
    ]);
  }

  /** Volts between the probes of a voltmeter while the bench supply feeds the unit. */
  #fed(assembly: string, { red, black, feed }: Setup): number {
    return this.#answer(assembly, red, black, [
      `Vsupply source ${pinOf(feed!.minus)} ${benchSupply.volts}`,
      `Rsupply source ${pinOf(feed!.plus)} ${benchSupply.seriesOhms}`,
      `Rmeter ${pinOf(red)} ${pinOf(black)} ${this.meter.voltsInputOhms}`,
    ]);
  }

  #answer(assembly: string, red: string, black: string, instrument: readonly string[]): number {
    const key = [assembly, ...instrument].join('\n');
    let found = this.#answers.get(key);
    if (found === undefined) {
      const closed = assembly === 'closed';
      const joint = assembly === 'unsoldered' ? '1e13' : '1m';
      const volts = (place: string) => (pinOf(place) === '0' ? '0' : `v(${pinOf(place)})`);
      found = run(this.celsius, [
        this.#unit(),
        `X1 ${pins.join(' ')} unit joint=${joint} shut=${closed ? '1u' : '1e13'}`,
        ...instrument,
        '.control',
        'set numdgt=12',
        'op',
        `let between = ${volts(red)}-${volts(black)}`,
        'print between',
        'quit 0',
        '.endc',
      ]);
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

function run(celsius: number, lines: readonly string[]): number {
  const folder = mkdtempSync(join(tmpdir(), 'refectum-deck-'));
  try {
    for (const attempt of attempts) {
      const file = join(folder, 'bench.cir');
      const options = `.options temp=${celsius} tnom=20 ${attempt}`;
      writeFileSync(file, ['* a unit on the bench', options, ...lines, '.end', ''].join('\n'));
      const printed = spawnSync('ngspice', ['-b', file], { encoding: 'utf8' }).stdout;
      const found = Number(/^between = (\S+)$/m.exec(printed)?.[1]);
      if (Number.isFinite(found)) return found;
    }
    throw new Error(`ngspice found no operating point for\n${lines.join('\n')}`);
  } finally {
    rmSync(folder, { recursive: true });
  }
}
