import { slipChance, type View } from '../belief/index.ts';

/** How many views stand model for outcomes, and the nodes of three-point Gauss-Hermite quadrature. */
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

/** Hypotheses that expect the same of a check and stand for the same are one cell. */
interface Cells {
  readonly views: readonly View[];
  /** Weight of each view, all its cells together. */
  readonly viewWeights: Float64Array;
  readonly view: readonly number[];
  readonly weight: readonly number[];
  /** For each way of sorting, the class of each cell. */
  readonly classes: readonly (readonly number[])[];
}

function cellsOf(views: readonly View[], weights: Float64Array, sorts: readonly Classes[]): Cells {
  const alike = likeness(views[0]!);
  const distinct = new Map<number, number>();
  const kept: View[] = [];
  const cells = new Map<number, number>();
  const view: number[] = [];
  const weight: number[] = [];
  const classes = sorts.map((): number[] => []);
  for (let i = 0; i < views.length; i++) {
    const name = alike(views[i]!, i);
    let v = distinct.get(name);
    if (v === undefined) {
      distinct.set(name, (v = distinct.size));
      kept.push(views[i]!);
    }
    const key = sorts.reduce((k, sort) => k * sort.count + sort.of[i]!, v);
    const cell = cells.get(key);
    if (cell === undefined) {
      cells.set(key, view.length);
      view.push(v);
      weight.push(weights[i]!);
      sorts.forEach((sort, s) => classes[s]!.push(sort.of[i]!));
    } else weight[cell]! += weights[i]!;
  }
  const viewWeights = new Float64Array(distinct.size);
  view.forEach((v, cell) => (viewWeights[v]! += weight[cell]!));
  return { views: kept, viewWeights, view, weight, classes };
}

/**
 * Views whose means lie within an eighth of a standard deviation, and whose spreads and chances of over-range are as
 * close, are one view for foreseeing: they are put under one number.
 */
function likeness(first: View): (view: View, at: number) => number {
  if (first.kind === 'chances') {
    const seen = new Map<View, number>();
    return (view, at) => seen.get(view) ?? seen.set(view, at).get(view)!;
  }
  const step = first.sigma / 8;
  return (view) => {
    if (view.kind !== 'number') return -1;
    const mean = Math.max(-1e6, Math.min(1e6, Math.round(view.mean / step)));
    const spread = Math.max(-100, Math.min(100, Math.round(8 * Math.log(view.sigma / first.sigma))));
    return ((mean + 1e6) * 256 + spread + 100) * 32 + Math.round(20 * view.over);
  };
}

/** Called for each outcome that may come, with its chance and the likelihood of every view for it. */
type Visit = (chance: number, likelihoods: Float64Array) => void;

function foresee({ views, viewWeights }: Cells, visit: Visit): void {
  const first = views[0]!;
  const likelihoods = new Float64Array(views.length);
  const fill = (of: (view: View) => number, slip: number): number => {
    let chance = 0;
    for (let i = 0; i < likelihoods.length; i++) {
      likelihoods[i] = (1 - slipChance) * of(views[i]!) + slipChance * slip;
      chance += viewWeights[i]! * likelihoods[i]!;
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
  foreseeNumbers(views as readonly (typeof first)[], viewWeights, 1 - over, likelihoods, visit);
}

type NumberView = View & { kind: 'number' };

/** The heaviest views that give a number stand model for the numbers that may come. */
function foreseeNumbers(
  views: readonly NumberView[],
  weights: Float64Array,
  rest: number,
  likelihoods: Float64Array,
  visit: Visit,
): void {
  const means = Float64Array.from(views, (v) => v.mean);
  const rates = Float64Array.from(views, (v) => 1 / v.sigma);
  const shown = (v: number): number => weights[v]! * (1 - views[v]!.over);
  const chosen = [...views.keys()].sort((a, b) => shown(b) - shown(a)).slice(0, models);
  const mass = chosen.reduce((sum, v) => sum + shown(v), 0);
  if (mass < 1e-9) return;
  const slip = (slipChance * 0.5) / views[0]!.span;
  const honest = (1 - slipChance) / Math.sqrt(2 * Math.PI);
  for (const v of chosen) {
    const own = shown(v);
    if (own < 1e-5) continue;
    for (const { z, share } of nodes) {
      const y = means[v]! + z / rates[v]!;
      for (let i = 0; i < likelihoods.length; i++) {
        const distance = (y - means[i]!) * rates[i]!;
        likelihoods[i] =
          distance > farZ || distance < -farZ ? slip : slip + honest * rates[i]! * Math.exp(-0.5 * distance * distance);
      }
      visit((rest * own * share) / mass, likelihoods);
    }
  }
}

/** Entropy of the shares of a total, in bits. */
function bitsOf(masses: Float64Array, total: number): number {
  let bits = 0;
  for (let i = 0; i < masses.length; i++) {
    const mass = masses[i]!;
    if (mass > 0) bits -= mass * Math.log2(mass / total);
  }
  return bits / total;
}

/** Quadratic error to be expected where the shares of a total are told as chances: 1 − Σp². */
function errorOf(masses: Float64Array, total: number): number {
  let squares = 0;
  for (let i = 0; i < masses.length; i++) squares += masses[i]! * masses[i]!;
  return 1 - squares / total ** 2;
}

/** What an outcome is expected to teach about which class is true. */
export interface Gain {
  /** Knowledge, in bits (mutual information; Lindley 1956): what is unlikely counts too. */
  readonly bits: number;
  /** By how much the quadratic error of what is told falls (Brier 1950, from memory); 0 to 1: what may change what is told. */
  readonly error: number;
}

/** What an outcome is expected to teach, for each of several ways to sort the hypotheses. */
export function expectedGains(views: readonly View[], weights: Float64Array, sorts: readonly Classes[]): Gain[] {
  const cells = cellsOf(views, weights, sorts);
  if (cells.views.length === 1) return sorts.map(() => ({ bits: 0, error: 0 }));
  const masses = sorts.map(({ count }) => new Float64Array(count));
  const sort = (likelihoods: Float64Array | undefined): number => {
    masses.forEach((mass) => mass.fill(0));
    let total = 0;
    for (let c = 0; c < cells.view.length; c++) {
      const weight = cells.weight[c]! * (likelihoods ? likelihoods[cells.view[c]!]! : 1);
      total += weight;
      for (let s = 0; s < masses.length; s++) masses[s]![cells.classes[s]![c]!]! += weight;
    }
    return total;
  };
  const total = sort(undefined);
  const before = masses.map((mass): Gain => ({ bits: bitsOf(mass, total), error: errorOf(mass, total) }));
  const after = { bits: new Float64Array(sorts.length), error: new Float64Array(sorts.length) };
  let chances = 0;
  foresee(cells, (chance, likelihoods) => {
    const all = sort(likelihoods);
    if (all <= 0) return;
    masses.forEach((mass, s) => {
      after.bits[s]! += chance * bitsOf(mass, all);
      after.error[s]! += chance * errorOf(mass, all);
    });
    chances += chance;
  });
  const fall = (of: keyof Gain, s: number): number =>
    chances > 0 ? Math.max(before[s]![of] - after[of][s]! / chances, 0) : 0;
  return sorts.map((_, s) => ({ bits: fall('bits', s), error: fall('error', s) }));
}
