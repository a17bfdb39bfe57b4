/** A measured point: what a model should give there, and its standard uncertainty. */
export interface Observation<P> {
  readonly at: P;
  readonly value: number;
  readonly sigma: number;
}

/** What is known of each parameter beforehand: independent and normal; `Infinity` for nothing. */
export interface PriorParameter {
  readonly mean: number;
  readonly sigma: number;
}

export interface Fit<P> {
  readonly parameters: readonly number[];
  /** Row by row. */
  readonly covariance: readonly (readonly number[])[];
  /** Weighed squares of what is left: points, and pulls from the priors. */
  readonly squares: number;
  /** ln of how likely the points are under the model, whatever its parameters (Laplace's approximation), less a constant. */
  readonly evidence: number;
  /** What the model gives at a place, with the standard uncertainty of its parameters alone. */
  readonly predict: (at: P) => { readonly mean: number; readonly sigma: number };
  /** How what the model gives at two places varies together, by its parameters alone. */
  readonly covary: (at: P, there: P) => number;
}

const mostSteps = 100;
const trust = { start: 1e-3, harder: 4, softer: 0.25 } as const;

/**
 * Weighted least squares with priors (the most likely parameters under normal errors), by Levenberg's and Marquardt's
 * damped steps (Marquardt 1963). Slopes by differences of `tried` times each parameter's scale: its prior's, or what is
 * given for those without one; a model that is itself settled by steps needs wide differences. Between two such rounds
 * each step corrects the slopes by what it met (Broyden 1965), and no end is taken on corrected slopes. It ends where a
 * step promises to take less than the square of `tried` from the weighed squares: a model known roughly is settled roughly.
 */
export function fit<P>(
  model: (at: P, parameters: readonly number[]) => number,
  observations: readonly Observation<P>[],
  priors: readonly PriorParameter[],
  tried = 1e-5,
  scales: readonly number[] = priors.map(({ sigma }) => sigma),
): Fit<P> {
  const valuesAt = (parameters: readonly number[]) => observations.map(({ at }) => model(at, parameters));
  const leftOf = (values: readonly number[], parameters: readonly number[]): number[] => [
    ...observations.map(({ value, sigma }, k) => (value - values[k]!) / sigma),
    ...priors.map(({ mean, sigma }, i) => (sigma === Infinity ? 0 : (mean - parameters[i]!) / sigma)),
  ];
  const squaresOf = (left: readonly number[]): number => left.reduce((sum, one) => sum + one * one, 0);
  const slopesAt = (at: P, parameters: readonly number[]): number[] =>
    parameters.map((_, i) => {
      const step = tried * scales[i]!;
      const beside = (by: number) =>
        model(
          at,
          parameters.map((p, j) => (j === i ? p + by : p)),
        );
      return (beside(step) - beside(-step)) / (2 * step);
    });
  const n = priors.length;
  const normal = (slopes: readonly (readonly number[])[], left: readonly number[]) => {
    const rows = slopes.map((row, k) => row.map((s) => s / observations[k]!.sigma));
    priors.forEach(({ sigma }, i) => rows.push(priors.map((_, j) => (i === j && sigma !== Infinity ? 1 / sigma : 0))));
    const matrix = Array.from({ length: n }, (_, i) =>
      Array.from({ length: n }, (_, j) => rows.reduce((sum, row) => sum + row[i]! * row[j]!, 0)),
    );
    const right = Array.from({ length: n }, (_, i) => rows.reduce((sum, row, k) => sum + row[i]! * left[k]!, 0));
    return { matrix, right };
  };
  const allSlopes = () => observations.map(({ at }) => slopesAt(at, parameters));

  let parameters = priors.map(({ mean }) => mean);
  let values = valuesAt(parameters);
  let left = leftOf(values, parameters);
  let slopes = allSlopes();
  let corrected = false;
  let damping: number = trust.start;
  for (let round = 0; round < mostSteps; round++) {
    const { matrix, right } = normal(slopes, left);
    const move = solve(
      matrix.map((row, i) => row.map((m, j) => (i === j ? m * (1 + damping) : m))),
      right,
    );
    const hopedFor = move.reduce((sum, m, i) => sum + m * right[i]!, 0);
    if (hopedFor > tried ** 2) {
      const there = parameters.map((p, i) => p + move[i]!);
      const valuesThere = valuesAt(there);
      const leftThere = leftOf(valuesThere, there);
      if (squaresOf(leftThere) <= squaresOf(left)) {
        slopes = slopes.map((row, k) => correctedBy(row, move, valuesThere[k]! - values[k]!, scales));
        [parameters, values, left, corrected] = [there, valuesThere, leftThere, true];
        damping *= trust.softer;
        continue;
      }
      if (!corrected) {
        damping *= trust.harder;
        continue;
      }
    }
    if (!corrected) break;
    slopes = allSlopes();
    corrected = false;
  }
  if (corrected) slopes = allSlopes();
  const covariance = inverse(normal(slopes, left).matrix);
  const covaryBy = (a: readonly number[], b: readonly number[]) =>
    a.reduce((sum, x, i) => sum + b.reduce((s, y, j) => s + x * y * covariance[i]![j]!, 0), 0);
  const known = new Map<P, number[]>();
  const slopesOf = (at: P): number[] => known.get(at) ?? known.set(at, slopesAt(at, parameters)).get(at)!;
  const covary = (at: P, there: P) => covaryBy(slopesOf(at), slopesOf(there));
  const predict = (at: P) => ({ mean: model(at, parameters), sigma: Math.sqrt(Math.max(covary(at, at), 0)) });
  const squares = squaresOf(left);
  const free = priors.reduce((sum, { sigma }) => sum + (sigma === Infinity ? 0 : Math.log(sigma)), 0);
  const evidence = -squares / 2 + Math.log(determinant(covariance)) / 2 - free;
  return { parameters, covariance, squares, evidence, predict, covary };
}

/** Slopes that give what a step met, changed the least that does it, each parameter in its scale (Broyden 1965). */
function correctedBy(
  slopes: readonly number[],
  move: readonly number[],
  met: number,
  scales: readonly number[],
): number[] {
  const scaled = move.map((m, i) => m / scales[i]!);
  const length = scaled.reduce((sum, m) => sum + m * m, 0);
  if (length === 0) return [...slopes];
  const missing = met - slopes.reduce((sum, s, i) => sum + s * move[i]!, 0);
  return slopes.map((s, i) => s + (missing * scaled[i]!) / length / scales[i]!);
}

/** Gauss with the largest pivot. */
function solve(matrix: readonly (readonly number[])[], right: readonly number[]): number[] {
  const n = right.length;
  const rows = matrix.map((row, i) => [...row, right[i]!]);
  for (let k = 0; k < n; k++) {
    let pivot = k;
    for (let i = k + 1; i < n; i++) if (Math.abs(rows[i]![k]!) > Math.abs(rows[pivot]![k]!)) pivot = i;
    [rows[k], rows[pivot]] = [rows[pivot]!, rows[k]!];
    for (let i = k + 1; i < n; i++) {
      const share = rows[i]![k]! / rows[k]![k]!;
      for (let j = k; j <= n; j++) rows[i]![j]! -= share * rows[k]![j]!;
    }
  }
  const found = new Array<number>(n).fill(0);
  for (let k = n - 1; k >= 0; k--) {
    const sum = rows[k]!.slice(k + 1, n).reduce((s, m, j) => s + m * found[k + 1 + j]!, 0);
    found[k] = (rows[k]![n]! - sum) / rows[k]![k]!;
  }
  return found;
}

/** Of a symmetric positive definite matrix (Cholesky). */
function determinant(matrix: readonly (readonly number[])[]): number {
  const rows = matrix.map((row) => [...row]);
  return rows.reduce((product, row, k) => {
    for (let i = k + 1; i < rows.length; i++) {
      const share = rows[i]![k]! / row[k]!;
      for (let j = k; j < rows.length; j++) rows[i]![j]! -= share * row[j]!;
    }
    return product * row[k]!;
  }, 1);
}

function inverse(matrix: readonly (readonly number[])[]): number[][] {
  const columns = matrix.map((_, c) =>
    solve(
      matrix,
      matrix.map((_, i) => (i === c ? 1 : 0)),
    ),
  );
  return matrix.map((_, i) => matrix.map((_, j) => columns[j]![i]!));
}
