/** A point of a curve: what the unit should give there, and whether the stand can take it. */
export interface PlannedPoint {
  readonly rpm: number;
  readonly amps: number;
  readonly possible: boolean;
}

/** Speeds that tell a curve: idle, the bend, the rise, the rating [our estimate]. */
const few = [1500, 2000, 2500, 3500, 6000];
/** Where the fastest is out of the stand's reach, what is foreseen there hangs on how many others are taken. */
const many = [1500, 1750, 2000, 2250, 2500, 2750, 3000, 3250, 3500, 4000, 4500, 5000, 6000];

/** The points to take with a stand that ends at so many amps, of a unit that should give so much at a speed. */
export function planPoints(foreseen: (rpm: number) => number, mostAmps: number): PlannedPoint[] {
  const of = (rpms: readonly number[]) =>
    rpms.map((rpm): PlannedPoint => {
      const amps = foreseen(rpm);
      return { rpm, amps, possible: amps <= mostAmps };
    });
  const plan = of(few);
  return plan.at(-1)!.possible ? plan : of(many);
}
