import {
  type Coil,
  type Coupling,
  copperOhms,
  type Edit,
  type Resistor,
  type Running,
  Turning,
  type TurningNetwork,
} from '../../circuit/index.ts';
import { ordersOf } from '../../waveform/index.ts';
import { heldAt, type Off, type Run, type RunningFault, type SettledRun, type Stand } from '../family.ts';
import type { ClawPoleBuild } from './builds.ts';
import { clawPoleNetwork, lead, leg, supplyNode, usual } from './circuit.ts';
import { type ClawPole, phases, turnsLeftAt, windingLeads } from './parameters.ts';

/** What the running machine is beside its resistances, a star winding standing for a delta's. */
export interface Excitation {
  readonly polePairs: number;
  /** Peak volts of a phase for each radian per second of electrical speed, full field. */
  readonly fluxWebers: number;
  /** Synchronous inductance of a phase. */
  readonly henries: number;
  /** Subtransient over synchronous inductance: what solid poles leave of it for what doesn't turn with them. */
  readonly damping: number;
  /** Field current of full field when the plate's figures were taken, rotor at 20 °C. */
  readonly fullAmps: number;
}

/** Twelve poles, common on car machines [common practice, no source]. */
const usualPolePairs = 6;
export const polePairsOf = (machine: ClawPole): number => machine.polePairs ?? usualPolePairs;
/** Rotor speed at which output begins [from memory: 900 to 1,200 rpm]. */
const usualCutInRpm = 1100;
/** ISO 8854 rates a machine at 6,000 rpm and 13.5 V, 27 V for 24 V sets [from memory for the numbers]. */
export const ratingPoint = (machine: ClawPole): { rpm: number; volts: number } => ({
  rpm: 6000,
  volts: machine.ratedVolts === 12 ? 13.5 : 27,
});
/** What a regulator drops when it is fully on, V [from memory]. */
export const regulatorDrop = 0.6;
/** Volts that a diode drops under load, and where its current begins [from memory]. */
const diodeVolts = { silicon: 0.95, 'low-loss': 0.6 } as const;
const kneeVolts = { silicon: 0.55, 'low-loss': 0.32 } as const;
/** Shorted turns: how much of each part's flux the other has, and what the short itself has [from memory]. */
const turnCoupling = 0.9;
const turnShortOhms = 1e-3;
/** Solid claws: subtransient over synchronous inductance, and how long their currents last [from memory: 0.4 to 0.7]. */
const usualDamping = 0.55;
const dampingSeconds = 0.01;
/** How much the iron saturates: flux = (1+s)·x/(1+s·x) at x of the full field [from memory]. */
const saturation = 0.7;

const radiansPerSecond = (rpm: number, polePairs: number): number => (2 * Math.PI * rpm * polePairs) / 60;

const known = new WeakMap<ClawPole, Map<string, Excitation>>();

/** Flux and inductance with which a machine gives its rated amps at the rating's point and begins to charge at cut-in. */
export function excitationOf(machine: ClawPole, build: ClawPoleBuild): Excitation {
  const own = known.get(machine) ?? new Map<string, Excitation>();
  known.set(machine, own);
  const kind = `${build.connection}, ${build.diodeKind}`;
  const found = own.get(kind) ?? ratedExcitation(machine, build);
  own.set(kind, found);
  return found;
}

/** The closed form's inductance brought to the rating by running it: what it leaves out is a few parts in a hundred. */
function ratedExcitation(machine: ClawPole, build: ClawPoleBuild): Excitation {
  const { rpm, volts } = ratingPoint(machine);
  const stand: Stand = {
    rpm,
    ...heldAt(volts),
    celsius: { windings: ratedCelsius, diodes: ratedCelsius },
    field: 'own',
  };
  let excitation = closedForm(machine, build);
  for (let round = 0; round < ratingRounds; round++) {
    const { amps } = clawPoleRun(machine, build, [], stand, excitation, { stepsPerPeriod: smoothSteps });
    if (!(amps.mean > 0)) return excitation;
    excitation = { ...excitation, henries: (excitation.henries * amps.mean) / machine.ratedAmps };
  }
  return excitation;
}
const ratedCelsius = 23;
const ratingRounds = 3;
/** A prime number: a mean then moves smoothly with speed and volts, see `Turning`. */
export const smoothSteps = 181;

/**
 * Flux and inductance from rating and cut-in: the fundamental of a rectifier on a constant voltage,
 * (R² + X²)·I₁² + 2·V₁·R·I₁ + V₁² = Vs², V₁ = (2/π)(V + 2·Vd), I = (3/π)·I₁ (after Caliskan, Perreault, Jahns and
 * Kassakian 2003, resistance added).
 */
function closedForm(machine: ClawPole, build: ClawPoleBuild): Excitation {
  const polePairs = polePairsOf(machine);
  const { rpm, volts } = ratingPoint(machine);
  const cutIn = radiansPerSecond(machine.cutInRpm ?? usualCutInRpm, polePairs);
  const fluxWebers = (volts + 2 * kneeVolts[build.diodeKind]) / (Math.sqrt(3) * cutIn);
  const speed = radiansPerSecond(rpm, polePairs);
  const ohms = machine.statorPairOhms / 2;
  const amps = (Math.PI / 3) * machine.ratedAmps;
  const v1 = (2 / Math.PI) * (volts + 2 * diodeVolts[build.diodeKind]);
  const square = (fluxWebers * speed) ** 2 - v1 ** 2 - 2 * v1 * ohms * amps;
  const reactance = Math.sqrt(Math.max(square / amps ** 2 - ohms ** 2, 0));
  return {
    polePairs,
    fluxWebers,
    henries: reactance / speed,
    damping: usualDamping,
    fullAmps: (volts - regulatorDrop) / (machine.rotorOhms + 2 * usual.brushOhms),
  };
}

/** Share of the full flux at a share of the full field's ampere-turns; iron that saturates so many times as usual. */
export function fluxShare(field: number, saturates = 1): number {
  const s = saturation * saturates;
  return ((1 + s) * field) / (1 + s * field);
}

/** The machine on a stand, its field at `flux`: coils for the stator, all else as on the bench. */
export function clawPoleTurning(
  machine: ClawPole,
  build: ClawPoleBuild,
  faults: readonly RunningFault[],
  stand: Pick<Stand, 'rpm' | 'loadOhms' | 'batteryVolts' | 'batteryOhms' | 'cableOhms'>,
  { fluxWebers, henries, polePairs, damping }: Omit<Excitation, 'fullAmps'>,
): TurningNetwork {
  const atRest = clawPoleNetwork(machine, build, 'closed');
  const edits = faults.flatMap((fault) => fault.edits);
  const open = new Set(edits.flatMap((edit) => ('open' in edit ? [edit.element] : [])));
  const fieldSide = /^(winding|rotor|brush|regulator-drive)/;
  const volts = fluxWebers * radiansPerSecond(stand.rpm, polePairs);
  const whole = wholeCoil(machine, build, volts, henries);
  const { coils, couplings, shorts } = statorCoils(build, faults, whole);
  return {
    resistors: [
      ...atRest.resistors.filter(({ name }) => !fieldSide.test(name)).map((resistor) => edited(resistor, edits)),
      ...shorts,
      { name: 'cable', a: 'output', b: 'bus', ohms: stand.cableOhms },
      { name: 'load', a: 'bus', b: 'case', ohms: stand.loadOhms },
    ],
    junctions: atRest.junctions.filter(({ name }) => name !== 'freewheel' && !open.has(name)),
    emfs: [{ name: 'battery', plus: 'bus', minus: 'case', volts: stand.batteryVolts, ohms: stand.batteryOhms }],
    coils,
    couplings,
    damping: damping < 1 ? { ...whole, share: damping, seconds: dampingSeconds } : undefined,
  };
}

interface WholeCoil {
  readonly ohms: number;
  readonly henries: number;
  readonly emfVolts: number;
}

/** A winding between two leads of a delta, or from lead to star. */
const wholeCoil = (machine: ClawPole, build: ClawPoleBuild, volts: number, henries: number): WholeCoil =>
  build.connection === 'star'
    ? { ohms: machine.statorPairOhms / 2, henries, emfVolts: volts }
    : { ohms: machine.statorPairOhms * 1.5, henries: 3 * henries, emfVolts: Math.sqrt(3) * volts };

function edited(resistor: Resistor, edits: readonly Edit[]): Resistor {
  const ohms = edits
    .filter(({ element }) => element === resistor.name)
    .reduce((now, edit) => {
      if ('set' in edit) return edit.set;
      if ('add' in edit) return now + edit.add;
      return 'scale' in edit ? now * edit.scale : now;
    }, resistor.ohms);
  return { ...resistor, ohms };
}

/** The three windings; one with shorted turns in two coupled parts, one torn left out. */
function statorCoils(
  build: ClawPoleBuild,
  faults: readonly RunningFault[],
  whole: WholeCoil,
): { coils: Coil[]; couplings: Coupling[]; shorts: Resistor[] } {
  const star = build.connection === 'star';
  const coils: Coil[] = [];
  const couplings: Coupling[] = [];
  const shorts: Resistor[] = [];
  phases.forEach((phase, n) => {
    const [from, to] = star ? [lead(phase), 'star'] : [...windingLeads[phase]!].map(lead);
    // In delta winding A lies between B and C, a quarter turn behind phase A.
    const lagRadians = (2 * Math.PI * n) / 3 + (star ? 0 : Math.PI / 2);
    const part = (name: string, a: string, b: string, share: number): Coil => ({
      name,
      a,
      b,
      ohms: whole.ohms * share,
      henries: whole.henries * share ** 2,
      emfVolts: whole.emfVolts * share,
      lagRadians,
    });
    const here = faults.filter(({ place }) => place === phase);
    if (here.some(({ species }) => species === 'stator-open')) return;
    const turns = here.find(({ species }) => species === 'stator-turns');
    if (!turns) {
      coils.push(part(phase, from!, to!, 1));
      return;
    }
    const out = Math.min(turns.severity, 0.95);
    const tap = `turns:${phase}`;
    coils.push(part(phase, from!, tap, 1 - out), part(tap, tap, to!, out));
    couplings.push({ coils: [phase, tap], henries: turnCoupling * whole.henries * out * (1 - out) });
    shorts.push({ name: tap, a: tap, b: to!, ohms: turnShortOhms });
  });
  return { coils, couplings, shorts };
}

/** Resistance of the field circuit, brushes and all, as the faults leave it; hot as the windings are. */
function fieldOhms(machine: ClawPole, build: ClawPoleBuild, faults: readonly RunningFault[], celsius: number): number {
  const edits = faults.flatMap((fault) => fault.edits);
  const parts = clawPoleNetwork(machine, build, 'closed').resistors.filter(({ name }) =>
    /^(rotor|brush:.)$/.test(name),
  );
  return parts
    .map((part) => edited(part, edits))
    .reduce((sum, part) => sum + (part.copper ? copperOhms(part.ohms, celsius) : part.ohms), 0);
}

/** A machine whose quantities are off by so much of themselves. */
export function swayed(machine: ClawPole, build: ClawPoleBuild, off: Off): { own: ClawPole; excitation: Excitation } {
  const by = (name: string) => 1 + (off[name] ?? 0);
  const plate = excitationOf(machine, build);
  return {
    own: {
      ...machine,
      statorPairOhms: machine.statorPairOhms * by('stator'),
      rotorOhms: machine.rotorOhms * by('rotor'),
    },
    excitation: {
      ...plate,
      fluxWebers: plate.fluxWebers * by('flux'),
      henries: plate.henries * by('inductance'),
      damping: plate.damping * by('damping'),
    },
  };
}

/** Brushes whose resistance is off by a share of itself. */
export const brushesOff = (share = 0): RunningFault[] => {
  if (share === 0) return [];
  const edits = ['brush:1', 'brush:2'].map((element) => ({ element, scale: 1 + share }));
  return [{ species: 'brushes', place: '', severity: share, edits }];
};

/** Of the rotor's turns, those still in the circuit. */
const turnsLeft = (faults: readonly RunningFault[]): number =>
  faults.reduce((left, { species, severity }) => (species === 'rotor-turns' ? left * turnsLeftAt(severity) : left), 1);

/** What clamp or meter show of a run, by what a check asks for. */
export function shownBy({ amps, tap, exciter }: Run, shows: string): number {
  if (shows === 'tap') return tap.mean;
  if (shows !== 'exciter') return Math.max(amps.mean, 0);
  if (!exciter) throw new RangeError('there are no exciter diodes to read');
  return exciter.mean;
}

/** How far exciter diodes lie above the post at most, V: on a sound machine half as far, by our own simulation. */
const exciterAbove = 0.5;
const mostRounds = 12;
/** Where what feeds the field follows the field so closely, the secant leads nowhere. */
const steepest = 0.95;
const settledShare = 2e-3;

/** How finely it is worked out, and a run near it. */
type Settling = Pick<Running, 'stepsPerPeriod' | 'settledShare'> & { readonly from?: SettledRun | undefined };

/** The steady state on a stand, field full. The field current follows from the volts that feed it, and those from it. */
export function clawPoleRun(
  machine: ClawPole,
  build: ClawPoleBuild,
  faults: readonly RunningFault[],
  stand: Stand,
  excitation: Excitation = excitationOf(machine, build),
  { from: near, ...settling }: Settling = {},
): Run {
  const { polePairs, fluxWebers, fullAmps } = excitation;
  const electricalHertz = (stand.rpm * polePairs) / 60;
  const ohms = fieldOhms(machine, build, faults, stand.celsius.windings);
  const turns = turnsLeft(faults);
  const supply = supplyNode(machine);
  const drop = stand.field === 'bypassed' ? 0 : regulatorDrop;
  const at = (fieldAmps: number, from: SettledRun['period'] | undefined) => {
    const flux = fluxWebers * fluxShare((fieldAmps * turns) / fullAmps);
    const network = clawPoleTurning(machine, build, faults, stand, { ...excitation, fluxWebers: flux });
    const draws = [{ from: supply, to: 'case', amps: fieldAmps }];
    return new Turning(network, 'case', stand.celsius).steady({
      ...settling,
      electricalHertz,
      draws,
      from,
    });
  };
  const mean = (samples: Float64Array) => samples.reduce((sum, one) => sum + one, 0) / samples.length;
  const held = typeof stand.field === 'object';
  let fieldVolts = near?.fieldVolts ?? stand.batteryVolts;
  const most = () => Math.max(fieldVolts - drop, 0) / ohms;
  let fieldAmps = typeof stand.field === 'object' ? stand.field.amps : most();
  let period = at(fieldAmps, near?.period);
  let before: { readonly fieldAmps: number; readonly most: number } | undefined;
  for (let round = 0; !held && round < mostRounds; round++) {
    // A lost positive diode drives exciter diodes far above the post: a regulator lets the field have no more of it.
    const limit = stand.field === 'own' ? mean(period.volts('output')) + exciterAbove : Infinity;
    fieldVolts = Math.min(mean(period.volts(supply)), limit);
    const off = most() - fieldAmps;
    if (Math.abs(off) <= settledShare * fullAmps) break;
    // By the secant through the last two; a field that feeds itself is followed as it grows.
    const steep = before ? (most() - before.most) / (fieldAmps - before.fieldAmps) : 0;
    before = { fieldAmps, most: most() };
    fieldAmps = Math.max(fieldAmps + off / (1 - (steep < steepest ? steep : 0)), 0);
    period = at(fieldAmps, period.settled);
  }
  const trace = { amps: period.amps('cable'), volts: period.volts('output'), tap: period.volts(leg('A')) };
  return {
    rpm: stand.rpm,
    electricalHertz,
    fieldAmps,
    amps: ordersOf(trace.amps),
    volts: ordersOf(trace.volts),
    tap: ordersOf(trace.tap),
    ...(machine.exciterDiodes ? { exciter: ordersOf(period.volts(supply)) } : {}),
    trace,
    settled: { period: period.settled, fieldVolts },
  };
}
