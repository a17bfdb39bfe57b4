/** Of some particles, ascending, the chance that an entry was a slip. */
export interface Slips {
  readonly particles: Int32Array;
  readonly chances: Float32Array;
}

/** Of one particle; undefined where it isn't among them. */
export function slipIn({ particles, chances }: Slips, particle: number): number | undefined {
  const at = placeIn(particles, particle);
  return particles[at] === particle ? chances[at] : undefined;
}

/** Where a number stands among ascending ones that hold it. */
export function placeIn(ascending: Int32Array, wanted: number): number {
  let [low, high] = [0, ascending.length - 1];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (ascending[middle]! < wanted) low = middle + 1;
    else high = middle;
  }
  return low;
}
