/** What a reading's curve adds to its straight line, on the comparison scale. */
export interface Bend {
  readonly shift: number;
  readonly variance: number;
}
export const straight: Bend = { shift: 0, variance: 0 };

/** Outer nodes of a three-point quadrature, in standard deviations, with their weight: Gauss-Hermite for what is normal, Gauss-Legendre for what is uniform. */
export const normal = { node: Math.sqrt(3), weight: 1 / 6 } as const;
export const uniform = { node: Math.sqrt(9 / 5), weight: 5 / 18 } as const;

/**
 * Statistical linearisation (after the unscented transform, Julier and Uhlmann 1997): along one uncertain quantity the
 * slope becomes the chord between two outer nodes, the curvature moves the mean and counts as noise. `above`, `below`:
 * how far the reading at them lies from the middle, on the comparison scale.
 */
export function chordOf(
  above: number,
  below: number,
  { node, weight }: typeof normal | typeof uniform,
): { chord: number; bend: Bend } {
  return {
    chord: (above - below) / (2 * node),
    bend: {
      shift: weight * (above + below),
      variance: (weight / 2 - weight * weight) * (above + below) ** 2,
    },
  };
}

export const sumOf = (bends: readonly Bend[]): Bend => ({
  shift: bends.reduce((sum, { shift }) => sum + shift, 0),
  variance: bends.reduce((sum, { variance }) => sum + variance, 0),
});
