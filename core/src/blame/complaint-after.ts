import { type Belief, type Case, chanceThat, faultChances, priorBelief } from '../belief/index.ts';
import type { Complaint, OnVehicle } from '../machines/index.ts';

/** Odds never move by more than this on what a vehicle said: the bench looks for itself. */
const mostShift = 300;

/**
 * The unit's complaint as the bench begins with it, after what was learnt on the vehicle. Each species' weight moves
 * as its chance has moved there; the odds of a sound unit move as they have. With nothing learnt nothing moves.
 *
 * @param rows the unit's faults as the vehicle knows them
 */
export function complaintAfter(heard: Complaint, rows: readonly OnVehicle[], vehicle: Case, belief: Belief): Complaint {
  const before = faultChances(vehicle, priorBelief(vehicle));
  const after = faultChances(vehicle, belief);
  const sums = new Map<string, { before: number; after: number }>();
  vehicle.faults.forEach((fault, f) => {
    const row = rows.find(({ id }) => id === fault.species);
    if (fault.part !== 'unit' || !row) return;
    const sum = sums.get(row.species) ?? { before: 0, after: 0 };
    sums.set(row.species, { before: sum.before + before[f]!, after: sum.after + after[f]! });
  });
  const factors = [...sums].map(([species, sum]): [string, number] => [
    species,
    (heard.factors[species] ?? 1) * within(sum.after / sum.before),
  ]);
  const odds = (chance: number) => chance / (1 - chance);
  const [soundBefore, soundAfter] = [priorBelief(vehicle), belief].map((b) => unitSound(vehicle, b));
  const sound = odds(heard.sound) * within(odds(soundAfter!) / odds(soundBefore!));
  return { ...heard, factors: { ...heard.factors, ...Object.fromEntries(factors) }, sound: sound / (1 + sound) };
}

const within = (ratio: number): number => Math.min(Math.max(ratio, 1 / mostShift), mostShift);

/** Chance that nothing in the unit is at fault. */
function unitSound(vehicle: Case, belief: Belief): number {
  const own = vehicle.faults.map(({ part }) => part === 'unit');
  const sound = chanceThat(vehicle, belief, (faults) => !faults.some((f) => own[f]));
  return Math.min(Math.max(sound, 1e-9), 1 - 1e-9);
}
