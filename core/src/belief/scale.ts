import type { Unit } from '../quantity/index.ts';

/** Below this, in the unit, the scale is linear. */
const knee: Partial<Record<Unit, number>> = { ohms: 1, amps: 0.1, rpm: 50, newtonMetres: 0.5 };

/**
 * The scale readings are compared on. Ohms, amps, speed and torque go through asinh: linear below an ohm, a tenth
 * of an ampere and the like, where counts decide, logarithmic above, where leaks and drains spread over decades and what
 * turns is off by a share of itself. Everything else is linear.
 */
export function toScale(value: number, unit: Unit): number {
  const k = knee[unit];
  return k === undefined ? value : Math.asinh(value / k);
}
export function fromScale(y: number, unit: Unit): number {
  const k = knee[unit];
  return k === undefined ? y : k * Math.sinh(y);
}
/** d(scale)/d(value). */
export function scaleSlope(value: number, unit: Unit): number {
  const k = knee[unit];
  return k === undefined ? 1 : 1 / Math.hypot(k, value);
}
