import { gainSigma, type Multimeter } from '../instruments/index.ts';
import { benchSupply, currentClamp } from '../instruments/index.ts';
import type { Check } from '../checks/index.ts';
import { type Gaussian, gaussianOf, type PriorParameter } from '../numeric/index.ts';
import type { Nuisance } from '../machines/index.ts';

/**
 * The names of all that is uncertain and shared: first the instruments' part, then the unit's, then how far alike
 * readings lie beside their straight line, last the severity of each fault within its cell. A reading's slope and a
 * state's mean are vectors over these names.
 */
export interface Dimensions {
  readonly names: readonly string[];
  /** Of each, what stands before its place. */
  readonly kinds: readonly string[];
  readonly index: ReadonlyMap<string, number>;
  /** How many of the first belong to instruments. */
  readonly instruments: number;
  /** Where the severity of each fault of a hypothesis stands. */
  readonly severity: readonly number[];
  /** Those of which a sound unit has hardly more than so much. */
  readonly bounded: readonly { readonly dimension: number; readonly most: PriorParameter }[];
}

/** The name of a meter's leads. */
export const leadsOf = ({ id }: Multimeter): string => `leads@${id}`;

/** The gains and leads of every meter in use, and the bench supply's current. */
function instrumentSigmas(meters: readonly Multimeter[]): Nuisance[] {
  return [
    { name: 'supply', sigma: benchSupply.relativeSigma },
    { name: 'clamp', sigma: gainSigma(currentClamp[0]!) },
    ...meters.flatMap((meter) => [
      { name: leadsOf(meter), sigma: meter.leadOhmsSigma },
      { name: `diode@${meter.id}`, sigma: gainSigma(meter.diode) },
      { name: `ohms@${meter.id}`, sigma: gainSigma(meter.ohms[0]!) },
      { name: `volts@${meter.id}`, sigma: gainSigma(meter.volts[0]!) },
    ]),
  ];
}

/** What readings that are alike have in common beside their straight line: one standard deviation is that of their bend. */
export function bendsOf(checks: readonly Check[]): Nuisance[] {
  const alike = checks.flatMap(({ method }) => (method.kind === 'meter' && method.alike ? [method.alike] : []));
  return [...new Set(alike)].map((name) => ({ name: bendOf(name), sigma: 1 }));
}
export const bendOf = (alike: string): string => `bend@${alike}`;

/** The most faults that a hypothesis holds. */
export const mostFaults = 4;
const severities = Array.from({ length: mostFaults }, (_, n): Nuisance => ({ name: `severity:${n + 1}`, sigma: 1 }));

export function dimensionsOf(meters: readonly Multimeter[], ofUnit: readonly Nuisance[]): Dimensions {
  const instruments = instrumentSigmas(meters);
  const names = [...instruments, ...ofUnit, ...severities].map((nuisance) => nuisance.name);
  return {
    names,
    kinds: names.map((name) => name.split(':')[0]!),
    index: new Map(names.map((name, i) => [name, i])),
    instruments: instruments.length,
    severity: severities.map(({ name }) => names.indexOf(name)),
    bounded: ofUnit.flatMap(({ name, most }) => (most === undefined ? [] : [{ dimension: names.indexOf(name), most }])),
  };
}

/** The unit's own standard deviations by dimension; nothing where the instruments' stand. */
export function sigmasOf({ names, index }: Dimensions, unit: readonly Nuisance[]): Float64Array {
  const sigmas = new Float64Array(names.length);
  for (const { name, sigma } of unit) sigmas[index.get(name)!] = sigma;
  return sigmas;
}

/** The state before any reading; severity is scaled to a standard deviation of one. */
export const priorState = (meters: readonly Multimeter[], ofUnit: readonly Nuisance[]): Gaussian =>
  gaussianOf([...instrumentSigmas(meters), ...ofUnit, ...severities].map(({ sigma }) => sigma));
