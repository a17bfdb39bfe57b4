import { leadsMatter, nullFor } from '@refectum/core/assess';
import { caliperSigma, type Check } from '@refectum/core/checks';
import { type Multimeter, rangeFor, rangesOf, readingSigma } from '@refectum/core/instruments';
import type { TakenReading } from './job.ts';

const valueOf = ({ outcome }: TakenReading): number | undefined =>
  outcome.kind === 'value' ? outcome.value : undefined;

/** What a meter shows less its leads, where they matter; undefined when their null isn't known. */
export function netValue(check: Check, value: number, nullOhms: number | undefined): number | undefined {
  const { method } = check;
  const low = method.kind === 'meter' && method.setup.function === 'ohms' && value <= leadsMatter;
  if (!low) return value;
  return nullOhms === undefined ? undefined : Math.max(value - nullOhms, 0);
}

/** The newest null of a meter's leads among readings that stand: what holds for the next reading. */
export const nullOf = (readings: readonly TakenReading[], meter: string): number | undefined => {
  const newest = readings.findLast((reading) => isNullOf(reading, meter));
  return newest && valueOf(newest);
};

const isNullOf = ({ check, meter }: TakenReading, wanted: string): boolean =>
  check === 'leads-null' && meter === wanted;

/** A reading that stands less the null that held for it, as far as it is known and matters. */
export function netOfTaken(check: Check, reading: TakenReading, readings: readonly TakenReading[]): number | undefined {
  const value = valueOf(reading);
  const held = nullFor(reading, readings, (one) => isNullOf(one, reading.meter));
  return value === undefined ? undefined : netValue(check, value, held && valueOf(held));
}

/** What the same check showed at its other places by the same meter, leads taken off. */
export function siblingsOf(
  check: Check,
  checks: readonly Check[],
  readings: readonly TakenReading[],
  meter: string,
): readonly number[] {
  const others = checks.filter(
    ({ id, species, place }) => species === check.species && place !== '' && id !== check.id,
  );
  return others.flatMap((other) => {
    const newest = readings.findLast((reading) => reading.check === other.id && reading.meter === meter);
    const net = newest && netOfTaken(other, newest, readings);
    return net === undefined ? [] : [net];
  });
}

/** Standard uncertainty of a value of a check by a meter; a caliper's for lengths. */
export const sigmaOf = ({ method }: Check, value: number, meter: Multimeter): number =>
  method.kind === 'meter' ? readingSigma(rangeFor(rangesOf(meter, method.setup.function), value), value) : caliperSigma;
