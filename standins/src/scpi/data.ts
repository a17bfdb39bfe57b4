import { isWord } from './header.ts';
import { ScpiError } from './error.ts';

/** Numbers as SCPI writes over-range and not-a-number (SCPI-1999 volume 1, 7.2.1.4 and 7.2.1.5). */
export const overRange = 9.9e37;
export const notANumber = 9.91e37;

/** NR3, the form that instruments answer readings in. */
export function nr3(value: number): string {
  const [mantissa, exponent] = Math.abs(value).toExponential(8).split('e');
  return `${value < 0 ? '-' : '+'}${mantissa}E${exponent![0]}${exponent!.slice(1).padStart(2, '0')}`;
}

/** Multipliers of suffixes (IEEE 488.2 table 7-2); before OHM and HZ an M is mega, elsewhere milli. */
const multipliers: Readonly<Record<string, number>> = {
  '': 1,
  G: 1e9,
  MA: 1e6,
  K: 1e3,
  M: 1e-3,
  U: 1e-6,
  N: 1e-9,
  P: 1e-12,
};

export interface NumberLimits {
  /** The suffix's unit, as OHM, V, A, HZ, S. */
  readonly unit: string;
  readonly least: number;
  readonly most: number;
  readonly usual: number;
}

/** A number with or without suffix, or MINimum, MAXimum, DEFault. */
export function numberOf(parameter: string, { unit, least, most, usual }: NumberLimits): number {
  if (isWord(parameter, 'MINimum')) return least;
  if (isWord(parameter, 'MAXimum')) return most;
  if (isWord(parameter, 'DEFault')) return usual;
  const read = /^([+-]?(?:\d+\.?\d*|\.\d+)(?:\s*E\s*[+-]?\d+)?)\s*([A-Z]*)$/i.exec(parameter);
  if (!read) throw new ScpiError('-104', parameter);
  const value = Number(read[1]!.replaceAll(/\s/g, '')) * multiplierOf(read[2]!.toUpperCase(), unit);
  if (!(value >= least && value <= most)) throw new ScpiError('-222', parameter);
  return value;
}

function multiplierOf(suffix: string, unit: string): number {
  if (suffix === '') return 1;
  if (!suffix.endsWith(unit)) throw new ScpiError('-131', suffix);
  const prefix = suffix.slice(0, -unit.length);
  if (prefix === 'M' && (unit === 'OHM' || unit === 'HZ')) return 1e6;
  const multiplier = multipliers[prefix];
  if (multiplier === undefined) throw new ScpiError('-131', suffix);
  return multiplier;
}

/** ON, OFF or a number that is zero or not. */
export function booleanOf(parameter: string): boolean {
  if (/^on$/i.test(parameter)) return true;
  if (/^off$/i.test(parameter)) return false;
  const value = Number(parameter);
  if (Number.isNaN(value)) throw new ScpiError('-104', parameter);
  return Math.round(value) !== 0;
}

/** A definite length arbitrary block (IEEE 488.2 8.7.9) of 32-bit floating point numbers, most significant byte first. */
export function blockOf(values: ArrayLike<number>): Buffer {
  const body = Buffer.alloc(values.length * 4);
  for (let i = 0; i < values.length; i++) body.writeFloatBE(values[i]!, i * 4);
  const length = String(body.length);
  return Buffer.concat([Buffer.from(`#${length.length}${length}`), body]);
}
