/**
 * Probability that a standard normal value lies below `z`, to about 1e-15.
 * Hart's rational approximation (Hart et al. 1968, algorithm 5666) as given by West, "Better approximations
 * to cumulative normal functions", Wilmott Magazine 2005.
 */
export function normalCdf(z: number): number {
  if (z > 8.3) return 1;
  const x = Math.abs(z);
  const tail = x > 37 ? 0 : Math.exp((-x * x) / 2) * tailRatio(x);
  return z > 0 ? 1 - tail : tail;
}

function tailRatio(x: number): number {
  if (x >= 7.07106781186547) return 1 / (x + 1 / (x + 2 / (x + 3 / (x + 4 / (x + 0.65))))) / Math.sqrt(2 * Math.PI);
  const above = horner(x, aboveTerms);
  return above / horner(x, belowTerms);
}

const aboveTerms = [
  3.52624965998911e-2, 0.700383064443688, 6.37396220353165, 33.912866078383, 112.079291497871, 221.213596169931,
  220.206867912376,
];
const belowTerms = [
  8.83883476483184e-2, 1.75566716318264, 16.064177579207, 86.7807322029461, 296.564248779674, 637.333633378831,
  793.826512519948, 440.413735824752,
];

function horner(x: number, terms: readonly number[]): number {
  let sum = 0;
  for (let i = 0; i < terms.length; i++) sum = sum * x + terms[i]!;
  return sum;
}

/** Density of a normal value at `x` for a mean and a standard deviation (> 0), per unit of x. */
export function normalPdf(x: number, mean: number, sigma: number): number {
  const z = (x - mean) / sigma;
  return Math.exp(-0.5 * z * z) / (sigma * Math.sqrt(2 * Math.PI));
}

/** Probability that a normal value lies between two bounds, either of which may be infinite. */
export function normalBetween(low: number, high: number, mean: number, sigma: number): number {
  return normalCdf((high - mean) / sigma) - normalCdf((low - mean) / sigma);
}
