import type { Build, StrewnApart } from '../build.ts';
import type { Nuisance } from '../family.ts';
import { usual } from './circuit.ts';
import { type ClawPole, diodePlaces, phases } from './parameters.ts';

export interface ClawPoleBuild extends Build {
  readonly connection: 'star' | 'delta';
  readonly diodeKind: 'silicon' | 'low-loss';
}

/** How common each build is where the plate doesn't say [from memory]. */
const common = { star: 0.75, delta: 0.25, silicon: 0.8, 'low-loss': 0.2 } as const;

/** Every build the machine may have; eight diodes need a star point. */
export function clawPoleBuilds(machine: ClawPole): readonly ClawPoleBuild[] {
  const star = machine.diodes === 8 ? 'star' : machine.connection;
  const connections = star === 'unknown' ? (['star', 'delta'] as const) : [star];
  const kinds = machine.diodeKind === 'unknown' ? (['silicon', 'low-loss'] as const) : [machine.diodeKind];
  return connections.flatMap((connection) =>
    kinds.map((diodeKind) => ({
      id: `${connection}, ${diodeKind}`,
      name: `${diodeKind} diodes in ${connection}`,
      prior: (connections.length > 1 ? common[connection] : 1) * (kinds.length > 1 ? common[diodeKind] : 1),
      connection,
      diodeKind,
    })),
  );
}

/** The other kind of diodes: a rectifier was exchanged, or the plate's word for it taken wrong. */
export const clawPoleContrary = (machine: ClawPole): readonly ClawPoleBuild[] =>
  machine.diodeKind === 'unknown'
    ? []
    : clawPoleBuilds({ ...machine, diodeKind: machine.diodeKind === 'silicon' ? 'low-loss' : 'silicon' });

/**
 * Of each brush on its ring, give or take a third: through the brushes a field reads little more than from ring to ring;
 * with half an ohm more and above it is dirt or a brush [from memory].
 */
const mostContact = { ohms: 0.3, share: 0.35 };

/**
 * The spreads of sound machines. Junction voltages: a batch moves together, siblings differ by a few mV (500, 502,
 * 504 mV seen: common practice, no source); batch spreads and leakages are from memory, chosen wide.
 */
export function clawPoleNuisances(machine: ClawPole, build: ClawPoleBuild): readonly Nuisance[] {
  const batch = build.diodeKind === 'silicon' ? 0.025 : 0.04;
  const sibling = build.diodeKind === 'silicon' ? 0.003 : 0.005;
  return [
    { name: 'celsius', sigma: 3 },
    { name: 'junction', sigma: batch },
    ...diodePlaces(machine).map((place) => ({ name: `junction:${place}`, sigma: sibling })),
    { name: 'exciter', sigma: 0.03 },
    ...phases.map((phase) => ({ name: `exciter:${phase}`, sigma: 0.004 })),
    { name: 'stator', sigma: 0.15 },
    ...phases.map((phase) => ({ name: `stator:${phase}`, sigma: 0.01 })),
    { name: 'rotor', sigma: 0.12 },
    {
      name: 'brushes',
      sigma: 0.6,
      most: { mean: Math.log(mostContact.ohms / usual.brushOhms), sigma: mostContact.share },
    },
    { name: 'leak', sigma: 1 },
    ...diodePlaces(machine).map((place) => ({ name: `leak:${place}`, sigma: 0.8 })),
    ...phases.map((phase) => ({ name: `exciter-leak:${phase}`, sigma: 1 })),
    ...['core', 'rotor-core', 'output'].map((place) => ({ name: `insulation-${place}`, sigma: 1.2 })),
    // Running: field strength and reactance follow from the plate only roughly.
    { name: 'flux', sigma: 0.1 },
    { name: 'inductance', sigma: 0.12 },
    // 0.4 to 0.7 of solid claws lie two of them off the middle [from memory].
    { name: 'damping', sigma: 0.14 },
    { name: 'regulator', sigma: 1 },
    // An output stage that is off: anything from 100 kΩ to nothing a meter shows.
    { name: 'regulator-drive', sigma: 2.5 },
  ];
}

/** Windings of another make; insulation that damp, dust and age made another on every unit. */
export const clawPoleStrewnApart: readonly StrewnApart[] = [
  { name: 'windings', nuisances: ['stator', 'rotor'], takenFor: ['stator-turns', 'rotor-turns'] },
  {
    name: 'insulation',
    nuisances: ['leak', 'exciter-leak', 'insulation-core', 'insulation-rotor-core', 'insulation-output'],
    takenFor: ['diode-leaky', 'stator-core', 'rotor-core', 'output-leak'],
  },
];
