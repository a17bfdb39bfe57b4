/**
 * The t that leaves 2.5 % above it, by degrees of freedom from 2 [Student's distribution, as tabled in every handbook
 * of statistics; from memory, held against numerical integration in the tests].
 */
const t975 = [
  4.303, 3.182, 2.776, 2.571, 2.447, 2.365, 2.306, 2.262, 2.228, 2.201, 2.179, 2.16, 2.145, 2.131, 2.12, 2.11, 2.101,
  2.093, 2.086, 2.08, 2.074, 2.069, 2.064, 2.06, 2.056, 2.052, 2.048, 2.045, 2.042,
] as const;

/** Beyond the table by its expansion in 1/ν to the second order (Fisher and Cornish 1960). */
export function studentT(degrees: number): number {
  if (!Number.isInteger(degrees) || degrees < 2) throw new RangeError(`${degrees} degrees of freedom: at least 2`);
  const z = 1.95996;
  const first = (z ** 3 + z) / (4 * degrees);
  const second = (5 * z ** 5 + 16 * z ** 3 + 3 * z) / (96 * degrees ** 2);
  return t975[degrees - 2] ?? z + first + second;
}
