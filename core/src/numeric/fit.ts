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
}

const mostSteps = 100;
/** Of the widths that are tried: a model known roughly is settled roughly. */
const settledShare = 1e-4;
const trust = { start: 1e-3, harder: 4, softer: 0.25, most: 1e12 } as const;

/**
 * Weighted least squares with priors (the most likely parameters under normal errors), by Levenberg's and Marquardt's
 * damped steps (Marquardt 1963), slopes by differences of `tried` times each parameter's scale: its prior's, or what is
 * given for those without one. A model that is itself settled by steps needs wide differences.
 */
export function fit<P>(
  model: (at: P, parameters: readonly number[]) => number,
  observations: readonly Observation<P>[],
  priors: readonly PriorParameter[],
  tried = 1e-5,
  scales: readonly number[] = priors.map(({ sigma }) => sigma),
): Fit<P> {
  const residuals = (parameters: readonly number[]): number[] => [
    ...observations.map(({ at, value, sigma }) => (value - model(at, parameters)) / sigma),
    ...priors.map(({ mean, sigma }, i) => (sigma === Infinity ? 0 : (mean - parameters[i]!) / sigma)),
  ];
  const squaresOf = (rest: readonly number[]): number => rest.reduce((sum, one) => sum + one * one, 0);
  const step = (i: number) => tried * scales[i]!;
  const slopes = (parameters: readonly number[], value: (parameters: readonly number[]) => number): number[] =>
    parameters.map((_, i) => {
      const beside = (by: number) => value(parameters.map((p, j) => (j === i ? p + by * step(i) : p)));
      return (beside(1) - beside(-1)) / (2 * step(i));
    });
  let parameters = priors.map(({ mean }) => mean);
  let rest = residuals(parameters);
  let squares = squaresOf(rest);
  let damping: number = trust.start;
  const normal = () => {
    const rows = observations.map(({ at, sigma }) => slopes(parameters, (p) => model(at, p)).map((s) => s / sigma));
    priors.forEach(({ sigma }, i) => rows.push(priors.map((_, j) => (i === j && sigma !== Infinity ? 1 / sigma : 0))));
    const n = priors.length;
    const matrix = Array.from({ length: n }, (_, i) =>
      Array.from({ length: n }, (_, j) => rows.reduce((sum, row) => sum + row[i]! * row[j]!, 0)),
    );
    const right = Array.from({ length: n }, (_, i) => rows.reduce((sum, row, k) => sum + row[i]! * rest[k]!, 0));
    return { matrix, right };
  };
  for (let round = 0; round < mostSteps; round++) {
    const { matrix, right } = normal();
    const before = squares;
    while (damping < trust.most) {
      const damped = matrix.map((row, i) => row.map((m, j) => (i === j ? m * (1 + damping) : m)));
      const move = solve(damped, right);
      const next = parameters.map((p, i) => p + move[i]!);
      const left = residuals(next);
      const now = squaresOf(left);
      if (now <= squares) {
        [parameters, rest, squares] = [next, left, now];
        damping *= trust.softer;
        break;
      }
      damping *= trust.harder;
    }
    if (before - squares <= settledShare * tried * before || damping >= trust.most) break;
  }
  const covariance = inverse(normal().matrix);
  const predict = (at: P) => {
    const slope = slopes(parameters, (p) => model(at, p));
    const variance = slope.reduce((sum, a, i) => sum + slope.reduce((s, b, j) => s + a * b * covariance[i]![j]!, 0), 0);
    return { mean: model(at, parameters), sigma: Math.sqrt(Math.max(variance, 0)) };
  };
  const free = priors.reduce((sum, { sigma }) => sum + (sigma === Infinity ? 0 : Math.log(sigma)), 0);
  const evidence = -squares / 2 + Math.log(determinant(covariance)) / 2 - free;
  return { parameters, covariance, squares, evidence, predict };
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
