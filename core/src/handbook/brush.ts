export interface BrushLeft {
  /** mm for each thousand hours. */
  readonly wearPerThousandHours: number;
  /** Hours until the least length, 0 when it is reached. */
  readonly hours: number;
}

/**
 * How long a brush will last, if it goes on wearing as it did since new.
 *
 * @param lengths mm
 * @param hoursRun since the brush was new
 * @throws RangeError when the lengths can't be, or nothing is worn: no wear tells no rate
 */
export function brushLeft(newLength: number, length: number, least: number, hoursRun: number): BrushLeft {
  if (!(least > 0) || !(newLength > least)) throw new RangeError('The new brush is longer than the least.');
  if (!(length > 0) || length > newLength) throw new RangeError('The brush is no longer than it was new.');
  if (!(hoursRun > 0)) throw new RangeError('Hours run are above 0.');
  if (length === newLength) throw new RangeError('Nothing is worn yet: that tells no rate.');
  const perHour = (newLength - length) / hoursRun;
  return { wearPerThousandHours: 1000 * perHour, hours: Math.max(0, (length - least) / perHour) };
}
