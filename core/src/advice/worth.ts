import { slipChance, type View } from '../belief/index.ts';

/** How many hypotheses stand model for outcomes, and the nodes of three-point Gauss-Hermite quadrature. */
const models = 12;
const nodes = [
  { z: -Math.sqrt(3), share: 1 / 6 },
  { z: 0, share: 2 / 3 },
  { z: Math.sqrt(3), share: 1 / 6 },
] as const;
/** Beyond this many standard deviations a normal density counts as nothing beside a slip. */
const farZ = 7;

/** Sorts hypotheses into classes by what each stands for. */
export interface Classes {
  readonly of: Int32Array;
  readonly count: number;
}

/** Called for each outcome that may come, with its chance and the likelihood of every hypothesis for it. */
type Visit = (chance: number, likelihoods: Float64Array) => void;

function foresee(views: readonly View[], weights: Float64Array, visit: Visit): void {
  const first = views[0]!;
  const likelihoods = new Float64Array(views.length);
  const fill = (of: (view: View) => number, slip: number): number => {
    let chance = 0;
    for (let i = 0; i < likelihoods.length; i++) {
      likelihoods[i] = (1 - slipChance) * of(views[i]!) + slipChance * slip;
      chance += weights[i]! * likelihoods[i]!;
    }
    return chance;
  };
  if (first.kind === 'chances') {
    for (let o = 0; o < first.chances.length; o++) {
      const chance = fill((view) => (view as typeof first).chances[o]!, 1 / first.chances.length);
      visit(chance, likelihoods);
    }
    return;
  }
  const over = fill((view) => (view as typeof first).over, 0.5);
  visit(over, likelihoods);
  foreseeNumbers(views as readonly (typeof first)[], weights, 1 - over, likelihoods, visit);
}

type NumberView = View & { kind: 'number' };

/** The heaviest hypotheses that give a number stand model for the numbers that may come. */
function foreseeNumbers(
  views: readonly NumberView[],
  weights: Float64Array,
  rest: number,
  likelihoods: Float64Array,
  visit: Visit,
): void {
  const distinct = [...new Set(views)];
  const means = Float64Array.from(distinct, (v) => v.mean);
  const rates = Float64Array.from(distinct, (v) => 1 / v.sigma);
  const at = new Map(distinct.map((view, i) => [view, i]));
  const kind = Int32Array.from(views, (view) => at.get(view)!);
  const densities = new Float64Array(distinct.length);
  const count = views.length;
  const chosen = Math.min(models, count);
  let mass = 0;
  for (let m = 0; m < chosen; m++) mass += weights[m]! * (1 - views[m]!.over);
  if (mass < 1e-9) return;
  const slip = (slipChance * 0.5) / views[0]!.span;
  const honest = (1 - slipChance) / Math.sqrt(2 * Math.PI);
  for (let m = 0; m < chosen; m++) {
    const own = weights[m]! * (1 - views[m]!.over);
    if (own < 1e-5) continue;
    for (const { z, share } of nodes) {
      const y = views[m]!.mean + z * views[m]!.sigma;
      for (let i = 0; i < densities.length; i++) {
        const distance = (y - means[i]!) * rates[i]!;
        densities[i] =
          distance > farZ || distance < -farZ ? slip : slip + honest * rates[i]! * Math.exp(-0.5 * distance * distance);
      }
      for (let i = 0; i < count; i++) likelihoods[i] = densities[kind[i]!]!;
      visit((rest * own * share) / mass, likelihoods);
    }
  }
}

/** Sum of −m·log2(m/total): entropy in bits times the total. */
function spreadBits(masses: Float64Array, total: number): number {
  let bits = 0;
  for (let i = 0; i < masses.length; i++) {
    const mass = masses[i]!;
    if (mass > 0) bits -= mass * Math.log2(mass / total);
  }
  return bits;
}

/**
 * Expected gain of knowledge, in bits, about which class is true (mutual information; Lindley 1956), for each of
 * several ways to sort the hypotheses.
 */
export function expectedBits(views: readonly View[], weights: Float64Array, sorts: readonly Classes[]): number[] {
  if (views.every((view) => view === views[0])) return sorts.map(() => 0);
  const masses = sorts.map(({ count }) => new Float64Array(count));
  const sort = (weightOf: (i: number) => number): number => {
    masses.forEach((mass) => mass.fill(0));
    let total = 0;
    for (let i = 0; i < weights.length; i++) {
      const weight = weightOf(i);
      total += weight;
      for (let s = 0; s < sorts.length; s++) masses[s]![sorts[s]!.of[i]!]! += weight;
    }
    return total;
  };
  const total = sort((i) => weights[i]!);
  const before = masses.map((mass) => spreadBits(mass, total) / total);
  const after = new Float64Array(sorts.length);
  let chances = 0;
  foresee(views, weights, (chance, likelihoods) => {
    const all = sort((i) => weights[i]! * likelihoods[i]!);
    if (all <= 0) return;
    masses.forEach((mass, s) => (after[s]! += (chance * spreadBits(mass, all)) / all));
    chances += chance;
  });
  return before.map((bits, s) => (chances > 0 ? Math.max(bits - after[s]! / chances, 0) : 0));
}
