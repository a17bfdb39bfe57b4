import type { Check } from '../checks/index.ts';
import { insulationTester } from '../instruments/index.ts';
import type { Unit } from '../quantity/index.ts';

/** Below this, in the unit, the scale is linear. */
const knees: Partial<Record<Unit, number>> = { ohms: 1, amps: 0.1, rpm: 50, newtonMetres: 0.5 };

/** What an insulation tester shows least is where its counts decide: a dead short is no number to it. */
const kneeOf = ({ unit, method }: Check): number | undefined =>
  method.kind === 'meter' && method.setup.function === 'insulation' ? insulationTester.step : knees[unit];

/**
 * The scale that readings of a check are compared on. Ohms, amps, speed and torque go through asinh: linear below an ohm,
 * a tenth of an ampere and the like, where counts decide, logarithmic above, where leaks and drains spread over decades
 * and what turns is off by a share of itself. Everything else is linear.
 */
export function toScale(value: number, check: Check): number {
  const k = kneeOf(check);
  return k === undefined ? value : Math.asinh(value / k);
}
export function fromScale(y: number, check: Check): number {
  const k = kneeOf(check);
  return k === undefined ? y : k * Math.sinh(y);
}
/** d(scale)/d(value). */
export function scaleSlope(value: number, check: Check): number {
  const k = kneeOf(check);
  return k === undefined ? 1 : 1 / Math.hypot(k, value);
}
