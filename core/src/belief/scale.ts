import type { Unit } from '../quantity/index.ts';

/**
 * The scale readings are compared on. Ohms go through asinh: linear below an ohm, where counts decide, logarithmic
 * above, where leakage spreads over decades. Everything else is linear.
 */
export const toScale = (value: number, unit: Unit): number => (unit === 'ohms' ? Math.asinh(value) : value);
export const fromScale = (y: number, unit: Unit): number => (unit === 'ohms' ? Math.sinh(y) : y);
/** d(scale)/d(value). */
export const scaleSlope = (value: number, unit: Unit): number => (unit === 'ohms' ? 1 / Math.hypot(1, value) : 1);
