import { type Junction, type JunctionLaw, type Network, type Resistor, saturationFor } from '../../circuit/index.ts';
import type { ClawPoleBuild } from './builds.ts';
import { type ClawPole, diodePlaces, isDetached, phases, windingLeads } from './parameters.ts';

/** Junction laws at 25 °C, each by its forward volts at 1 mA [from memory: press-fit silicon 0.52, low-loss 0.30, small 0.56 V]. */
const law = (volts: number, ideality: number, seriesOhms: number): JunctionLaw => ({
  saturationAmps: saturationFor(volts, 1e-3, ideality),
  ideality,
  seriesOhms,
});

export const diodeLaws = {
  silicon: law(0.52, 1.6, 0.6e-3),
  'low-loss': law(0.3, 1.3, 0.6e-3),
  small: law(0.56, 1.7, 15e-3),
} as const;

/** Resistances that aren't the model's own [from memory]. */
export const usual = {
  jointOhms: 1e-3,
  brushOhms: 0.12,
  diodeLeakOhms: 20e6,
  coreOhms: 1.5e9,
  outputOhms: 100e6,
  regulatorSenseOhms: 12e3,
  regulatorDriveOhms: 2e7,
} as const;

export type Assembly = 'closed' | 'opened' | 'unsoldered';

/** The node a diode place hangs on. */
export const leg = (phase: string): string => `leg:${phase}`;
export const lead = (phase: string): string => `lead:${phase}`;
/** A brush's own terminal on its holder. */
export const holder = (brush: string): string => `holder-${brush}`;

/** Where the brushes are fed from: the exciter diodes, or the output post where there are none. */
export const supplyNode = (machine: ClawPole): string => (machine.exciterDiodes ? 'exciter' : 'output');

/**
 * The machine's circuit in one state of assembly. Closed: all joined, but for a regulator that is a box of its own. Opened: regulator and brushes off, the holder held
 * to the rings by hand where a check asks for it. Unsoldered: the stator leads off the rectifier as well.
 */
export function clawPoleNetwork(machine: ClawPole, build: ClawPoleBuild, assembly: Assembly): Network {
  const resistors: Resistor[] = [...stator(machine, build), ...rotor(machine), ...rectifierLeaks(machine)];
  const junctions: Junction[] = rectifierDiodes(machine, build);
  if (assembly !== 'unsoldered') resistors.push(...joints(machine));
  if (assembly === 'closed') {
    resistors.push(...brushesFed(machine));
    if (!isDetached(machine)) {
      resistors.push(...regulatorAtRest(machine));
      junctions.push(freewheel(machine));
    }
  } else resistors.push(...brushes(holder('1'), holder('2')));
  return { resistors, junctions };
}

function stator(machine: ClawPole, build: ClawPoleBuild): Resistor[] {
  const star = build.connection === 'star';
  const windings = phases.map((phase): Resistor => {
    const [from, to] = windingLeads[phase]!;
    return {
      name: `winding:${phase}`,
      a: lead(star ? phase : from!),
      b: star ? 'star' : lead(to!),
      ohms: machine.statorPairOhms * (star ? 1 / 2 : 3 / 2),
      copper: true,
      spread: ['stator', `stator:${phase}`],
    };
  });
  const core = phases.map((phase): Resistor => ({
    name: `core:${phase}`,
    a: lead(phase),
    b: 'case',
    ohms: usual.coreOhms,
    spread: ['insulation-core'],
  }));
  return [...windings, ...core];
}

const rotor = (machine: ClawPole): Resistor[] => [
  { name: 'rotor', a: 'ring-1', b: 'ring-2', ohms: machine.rotorOhms, copper: true, spread: ['rotor'] },
  { name: 'rotor-core', a: 'ring-1', b: 'case', ohms: usual.coreOhms, spread: ['insulation-rotor-core'] },
];

const sides = (place: string): [string, string] =>
  place.endsWith('+') ? [leg(place[0]!), 'output'] : ['case', leg(place[0]!)];

function rectifierDiodes(machine: ClawPole, build: ClawPoleBuild): Junction[] {
  const main = diodePlaces(machine).map((place): Junction => {
    const [anode, cathode] = sides(place);
    const spread = ['junction', `junction:${place}`];
    return { name: `diode:${place}`, anode, cathode, law: diodeLaws[build.diodeKind], spread };
  });
  if (!machine.exciterDiodes) return main;
  const exciter = phases.map((phase): Junction => ({
    name: `exciter:${phase}`,
    anode: leg(phase),
    cathode: 'exciter',
    law: diodeLaws.small,
    spread: ['exciter', `exciter:${phase}`],
  }));
  return [...main, ...exciter];
}

function rectifierLeaks(machine: ClawPole): Resistor[] {
  const leak = (name: string, a: string, b: string): Resistor => ({
    name,
    a,
    b,
    ohms: usual.diodeLeakOhms,
    spread: ['leak', name],
  });
  return [
    ...diodePlaces(machine).map((place) => leak(`leak:${place}`, ...sides(place))),
    ...(machine.exciterDiodes ? phases.map((p) => leak(`exciter-leak:${p}`, leg(p), 'exciter')) : []),
    { name: 'output-leak', a: 'output', b: 'case', ohms: usual.outputOhms, spread: ['insulation-output'] },
  ];
}

const joints = (machine: ClawPole): Resistor[] => [
  ...phases.map((phase) => ({ name: `joint:${phase}`, a: lead(phase), b: leg(phase), ohms: usual.jointOhms })),
  ...(machine.diodes === 8 ? [{ name: 'joint:N', a: 'star', b: leg('N'), ohms: usual.jointOhms }] : []),
];

/** From what feeds each brush, through it and its contact, to its ring. */
const brushes = (first: string, second: string): Resistor[] => [
  { name: 'brush:1', a: first, b: 'ring-1', ohms: usual.brushOhms, spread: ['brushes'] },
  { name: 'brush:2', a: second, b: 'ring-2', ohms: usual.brushOhms, spread: ['brushes'] },
];

/** One brush at the field terminal, the other where the field circuit ends or begins. */
const brushesFed = (machine: ClawPole): Resistor[] =>
  machine.regulatorSide === 'supply' ? brushes('field', 'case') : brushes(supplyNode(machine), 'field');

function regulatorAtRest(machine: ClawPole): Resistor[] {
  const supply = supplyNode(machine);
  const drive = machine.regulatorSide === 'supply' ? supply : 'case';
  return [
    { name: 'regulator-sense', a: supply, b: 'case', ohms: usual.regulatorSenseOhms, spread: ['regulator'] },
    { name: 'regulator-drive', a: 'field', b: drive, ohms: usual.regulatorDriveOhms, spread: ['regulator-drive'] },
  ];
}

/** The regulator's own diode that carries the field current on when it switches off. */
const freewheel = (machine: ClawPole): Junction =>
  machine.regulatorSide === 'supply'
    ? { name: 'freewheel', anode: 'case', cathode: 'field', law: diodeLaws.small }
    : { name: 'freewheel', anode: 'field', cathode: supplyNode(machine), law: diodeLaws.small };
