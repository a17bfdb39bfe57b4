import type { PresentFault } from '../../../checks/index.ts';
import { motorRun } from '../../../curves/index.ts';
import { normalCdf } from '../../../numeric/index.ts';
import { type RunningFault, runningFault } from '../../family.ts';
import { starterFaults } from '../faults/index.ts';
import { starterFed } from '../motor.ts';
import type { Starter } from '../parameters.ts';

/** How it seems to spin free on the bench battery: as it should, slowly, not at all. */
export type FreeSpin = readonly [right: number, slow: number, stands: number];

/** Below this share of a sound one's speed it seems slow; sound ones and ears differ [from memory]. */
const slow = { share: 0.72, sigma: 0.12 } as const;
/** Below this it is said to stand. */
const standing = { share: 0.08, sigma: 0.03 } as const;
/** A dead spot under a brush: where an armature with an open coil stops, it may not start again [from memory]. */
const openCoil = { slow: 0.22, stands: 0.28 } as const;
/** Chance of either where nothing is wrong [from memory]. */
const least = 0.005;

export const usualCelsius = 30;
const atContacts = new Set(['closed-contacts', 'main-case']);

/** Faults that are present, as a running starter has them. */
export function runningOf(machine: Starter): (faults: readonly PresentFault[]) => RunningFault[] {
  const all = new Map(starterFaults(machine).map((fault) => [fault.species, fault]));
  return (faults) =>
    faults.flatMap(({ species, severity }) => {
      const fault = all.get(species);
      return fault ? [runningFault(fault, severity)] : [];
    });
}

/**
 * Chances of how a starter spins without load, by running it. `fedAt` the motor's own terminal the contacts have no part
 * in it.
 */
export function freeSpin(machine: Starter): (faults: readonly PresentFault[], fedAt: 'main' | 'motor') => FreeSpin {
  const running = runningOf(machine);
  const rpm = (faults: readonly PresentFault[], fedAt: 'main' | 'motor'): number => {
    const felt = running(faults).map(({ edits, ...rest }) => {
      return { ...rest, edits: edits.filter(({ element }) => fedAt === 'main' || !atContacts.has(element)) };
    });
    const { motor, source } = starterFed(machine, felt, usualCelsius);
    return motorRun(motor, source, { newtonMetres: 0 }).rpm;
  };
  const sound = rpm([], 'main');
  return (faults, fedAt) => {
    const share = rpm(faults, fedAt) / sound;
    const stands = normalCdf((standing.share - share) / standing.sigma);
    const slower = Math.max(normalCdf((slow.share - share) / slow.sigma) - stands, 0);
    const open = faults.some(({ species }) => species === 'armature-open');
    const [more, none] = [Math.max(slower, least), Math.max(stands, least)];
    const raw = open
      ? [1 - openCoil.slow - openCoil.stands, Math.max(more, openCoil.slow), Math.max(none, openCoil.stands)]
      : [Math.max(1 - slower - stands, least), more, none];
    const total = raw.reduce((sum, one) => sum + one, 0);
    return raw.map((one) => one / total) as unknown as FreeSpin;
  };
}
