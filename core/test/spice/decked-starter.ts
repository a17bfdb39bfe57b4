import type { RunSetup } from '../../src/checks/index.ts';
import type { Off } from '../../src/machines/index.ts';
import { DeckedUnit, operatingPoint, readDeck, type Values, withValues } from './decked-unit.ts';

const deck = readDeck('starter.cir');

const pins: Readonly<Record<string, string>> = {
  main: 'main',
  motor: 'motor',
  lead: 'lead',
  'field-end': 'fend',
  bar: 'bar',
  'bar-opposite': 'bopp',
  shaft: 'shaft',
  command: 'cmd',
  case: '0',
};

type Changes = Readonly<Record<string, number>>;
const more = (name: string) => (ohms: number, of: (name: string) => number) => ({ [name]: of(name) + ohms });
const turnsOff = (name: string) => (share: number, of: (name: string) => number) => ({
  [name]: of(name) * (1 - share),
});
const nothing = () => ({});

/** What a fault is in the deck: other values of its parameters, given those of the unit as it is. */
const faultValues: Readonly<Record<string, (severity: number, of: (name: string) => number) => Changes>> = {
  'pull-in-open': () => ({ pull: 1e9 }),
  'pull-in-turns': turnsOff('pull'),
  'hold-in-open': () => ({ hold: 1e9 }),
  'hold-in-turns': turnsOff('hold'),
  'contacts-burnt': more('con'),
  'contacts-welded': () => ({ apart: 1e-3 }),
  'plunger-sticks': nothing,
  'fork-worn': nothing,
  'terminals-burnt': more('joint'),
  'main-case': (ohms) => ({ km: ohms }),
  'field-open': () => ({ field: 1e9 }),
  'field-turns': (share, of) => ({ field: of('field') * (1 - share), turns: 1 - share }),
  'field-case': (ohms) => ({ kf: ohms }),
  'armature-turns': (coils, of) => ({ arm: of('arm') * (1 - coils / 25), shorts: coils }),
  'armature-open': (_, of) => ({ arm: 1.8 * of('arm') }),
  'armature-core': (ohms) => ({ ka: ohms }),
  'brush-worn': more('bi'),
  'commutator-dirty': more('bi'),
  'bushes-worn': (factor, of) => ({ dragc: of('dragc') * factor, dragv: of('dragv') * factor }),
  'shaft-rubs': (factor, of) => ({ dragc: of('dragc') * factor, dragv: of('dragv') * factor }),
  'drive-slips': (share) => ({ clutch: share * soundHeldTorque() }),
  'drive-seized': nothing,
  'pinion-chipped': nothing,
  'case-cracked': nothing,
  'bench-battery-weak': (factor, of) => ({ rb: of('rb') * factor, cells: of('cells') * (1 - 0.02 * factor) }),
};

/** By which of the study's spreads a parameter of the circuit differs, and by which one of the running machine. */
const spreadOf: Readonly<Record<string, string>> = {
  pull: 'pull-in',
  hold: 'hold-in',
  apart: 'insulation-contacts',
  con: 'contacts',
  joint: 'contacts',
  field: 'motor',
  arm: 'motor',
  bi: 'brushes',
  bg: 'brushes',
  km: 'insulation-main-case',
  kf: 'insulation-field-case',
  ka: 'insulation-armature-core',
};
const runningOf: Readonly<Record<string, string>> = {
  flux: 'flux',
  sat: 'saturation',
  dragc: 'drag',
  dragv: 'drag',
  cells: 'cells',
  rb: 'battery',
};

/** The motor on its battery, its shaft turning against so many newton metres, or held. */
function running(values: Values, load: number | 'held', celsius: number, quantity: string): number {
  const shaft = load === 'held' ? 'Vheld w 0 0' : '.nodeset v(w)=300';
  const lines = [
    withValues(values, deck.circuit),
    `X1 main motor w run load=${load === 'held' ? 0 : load}`,
    'X2 main battery',
    shaft,
  ];
  return operatingPoint(celsius, lines, quantity);
}

/** What it pulls held; drag holds against it. */
const heldTorque = (values: Values, celsius: number): number =>
  Math.max(running(values, 'held', celsius, 'i(Vheld)') - values.get('dragc')!, 0);
/** Of a sound one at 20 °C; worked out when a drive slips, so that nobody needs ngspice who doesn't read in it. */
let soundHeld: number | undefined;
const soundHeldTorque = (): number => (soundHeld ??= heldTorque(deck.nominal, 20));

const usualCelsius = 30;
const rpmPerRadian = 60 / (2 * Math.PI);
/** Slower than this, the operating point means that it stands. */
const standingRpm = 2;
/** A carbon pile at half of the cranking amperes. */
const pileAmps = 350;

/** A starter with direct drive, read at rest and running in ngspice from starter.cir. */
export class DeckedStarter extends DeckedUnit {
  protected readonly deck = deck;
  #own: Values | undefined;

  protected override pinOf(place: string): string {
    const pin = pins[place];
    if (!pin) throw new Error(`the deck has no place “${place}”`);
    return pin;
  }

  protected override factorOf(name: string): number {
    if (spreadOf[name]) return this.ohmsFactor([spreadOf[name]]);
    return 1 + (this.off[runningOf[name] ?? ''] ?? 0);
  }

  protected override changedBy(species: string, severity: number, _: string, values: Values): [string, number][] {
    return Object.entries(faultValues[species]!(severity, (name) => values.get(name)!));
  }

  protected override placed(assembly: string): string {
    const lifted = assembly === 'cover-off' || assembly === 'opened';
    const off = lifted || assembly === 'lead-off' ? 1e13 : 1;
    return `X1 main motor lead fend bar bopp shaft cmd rest close=${off} lift=${lifted ? 1e13 : 1}`;
  }

  protected override ran({ held, shows }: RunSetup, off: Off): number {
    const values = (this.#own ??= this.values());
    const celsius = usualCelsius + (off.celsius ?? 0);
    if (shows.startsWith('battery')) {
      const amps = shows === 'battery-loaded' ? pileAmps : 0;
      const lines = [this.written(values), 'X2 main battery', `Ipile main 0 ${amps}`];
      return operatingPoint(celsius, lines, 'v(main)');
    }
    const clutch = values.get('clutch')!;
    const asked = held.rpm === 0 ? heldTorque(values, celsius) : (held.newtonMetres ?? 0);
    const slips = asked > clutch;
    if (shows === 'torque') return Math.min(asked, clutch);
    const load = slips ? clutch : held.rpm === 0 ? ('held' as const) : asked;
    const read = (quantity: string) => running(values, load, celsius, quantity);
    if (shows === 'amps') return read('-i(v.x2.vcells)');
    if (shows === 'volts') return read('v(main)');
    if (shows === 'contact-drop') return read('v(main)-v(motor)');
    if (shows !== 'rpm') throw new Error(`the deck shows no “${shows}”`);
    const rpm = slips || load === 'held' ? 0 : read('v(w)') * rpmPerRadian;
    return rpm < standingRpm ? 0 : rpm;
  }
}
