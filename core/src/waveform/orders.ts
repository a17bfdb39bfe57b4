/** A trace over one electrical period by its orders: multiples of the electrical frequency. */
export interface Orders {
  /** Of the trace, in its own unit. */
  readonly mean: number;
  /** Rms of each order, from 1 up. */
  readonly rms: readonly number[];
  /** Where each order's crest lies, from 1 up, in radians of that order. */
  readonly radians: readonly number[];
  /** Rms of all that alternates. */
  readonly ripple: number;
}

/** Orders that tell something: from one lost diode (1) to a sound bridge (6 and its double). */
export const mostOrder = 12;

/** Orders of equally spaced samples over exactly one period, the first one step after its start. */
export function ordersOf(samples: ArrayLike<number>): Orders {
  const n = samples.length;
  let sum = 0;
  for (let k = 0; k < n; k++) sum += samples[k]!;
  const mean = sum / n;
  let squares = 0;
  for (let k = 0; k < n; k++) squares += (samples[k]! - mean) ** 2;
  const parts = Array.from({ length: mostOrder }, (_, at) => component(samples, at + 1));
  return {
    mean,
    rms: parts.map(({ cos, sin }) => Math.hypot(cos, sin) / Math.SQRT2),
    radians: parts.map(({ cos, sin }) => Math.atan2(sin, cos)),
    ripple: Math.sqrt(squares / n),
  };
}

function component(samples: ArrayLike<number>, order: number): { cos: number; sin: number } {
  const n = samples.length;
  let [cos, sin] = [0, 0];
  for (let k = 0; k < n; k++) {
    const angle = (2 * Math.PI * order * (k + 1)) / n;
    cos += samples[k]! * Math.cos(angle);
    sin += samples[k]! * Math.sin(angle);
  }
  return { cos: (2 * cos) / n, sin: (2 * sin) / n };
}
