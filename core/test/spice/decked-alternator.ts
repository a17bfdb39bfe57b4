import { DeckedUnit, readDeck, type Values, withValues } from './decked-unit.ts';

const deck = readDeck('claw-pole.cir');

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
  'rings-gouged': () => ({}),
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

/** An alternator, read in ngspice from claw-pole.cir. */
export class DeckedAlternator extends DeckedUnit {
  protected readonly deck = deck;

  protected override pinOf(place: string): string {
    return pinOf(place);
  }

  protected override factorOf(name: string): number {
    const spread = spreadOf(name);
    const ideality = /^i[abc][pn]$/.test(name) ? 1.6 : 1.7;
    return name.startsWith('i') ? this.saturationFactor(spread, ideality) : this.ohmsFactor(spread);
  }

  protected override changedBy(species: string, severity: number, place: string, values: Values): [string, number][] {
    return Object.entries(faultValues[species]!(severity, place, (name) => values.get(name)!));
  }

  /** A diode behind a torn bond is left out. */
  protected override written(values: Values): string {
    const torn = [...values].filter(([, value]) => value === Infinity).map(([name]) => name);
    return withValues(
      new Map([...values].filter(([name]) => !torn.includes(name))),
      torn.reduce(withoutDiode, deck.circuit),
    );
  }

  protected override placed(assembly: string): string {
    const joint = assembly === 'unsoldered' ? '1e13' : '1m';
    return `X1 ${pins.join(' ')} unit joint=${joint} shut=${assembly === 'closed' ? '1u' : '1e13'}`;
  }
}
