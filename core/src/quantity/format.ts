import { type Unit, units } from './units.ts';

const thin = '\u202f';

/** Digits in groups of three with a thin no-break space from four digits on: `6 000`. */
export function formatNumber(value: number, decimals: number): string {
  const [whole, fraction] = Math.abs(value).toFixed(decimals).split('.') as [string, string?];
  const grouped = whole.replace(/\B(?=(\d{3})+$)/g, thin);
  const sign = value < 0 && Number(value.toFixed(decimals)) !== 0 ? '−' : '';
  return sign + grouped + (fraction ? `.${fraction}` : '');
}

function scaled(value: number, unit: Unit): { factor: number; prefix: string } {
  const size = Math.abs(value);
  if (unit === 'volts' && size < 1) return { factor: 1e3, prefix: 'm' };
  if (unit === 'ohms' && size > 0 && size < 0.09995) return { factor: 1e3, prefix: 'm' };
  if (unit !== 'ohms') return { factor: 1, prefix: '' };
  if (size >= 0.99995e9) return { factor: 1e-9, prefix: 'G' };
  if (size >= 0.99995e6) return { factor: 1e-6, prefix: 'M' };
  if (size >= 0.99995e3) return { factor: 1e-3, prefix: 'k' };
  return { factor: 1, prefix: '' };
}

/**
 * A quantity as engineers write it: `0.142 Ω`, `540 mV`, `13.8 V`, `3.09 MΩ`.
 * Three significant digits, or as many decimals as `resolution` (in the base unit) carries.
 */
export function formatQuantity(value: number, unit: Unit, resolution?: number): string {
  const { factor, prefix } = scaled(value, unit);
  const shown = value * factor;
  const step = resolution === undefined ? undefined : resolution * factor;
  const decimals =
    step === undefined
      ? Math.max(0, Math.min(3, 2 - Math.floor(Math.log10(Math.abs(shown) || 1))))
      : Math.max(0, Math.min(4, -Math.floor(Math.log10(step) + 1e-9)));
  return `${formatNumber(shown, decimals)}${thin}${prefix}${units[unit].symbol}`;
}

/** A reading as it was read: with the digits that it carries, five at most. `0.4 Ω`, `1.234 kΩ`, `13.86 V`. */
export function formatReading(value: number, unit: Unit): string {
  const [mantissa, exponent] = Number(value.toPrecision(5)).toExponential().split('e') as [string, string];
  const decimals = mantissa.split('.')[1]?.length ?? 0;
  return formatQuantity(value, unit, 10 ** (Number(exponent) - decimals));
}

/**
 * A value and its expanded uncertainty, above 0, both to the second digit of the latter (JCGM 100:2008, 7.2.4 and 7.2.6, from
 * memory): `9.300 ± 0.020 Ω`.
 */
export function formatWithin(value: number, uncertainty: number, unit: Unit): string {
  const { factor, prefix } = scaled(Math.max(Math.abs(value), uncertainty), unit);
  const decimals = Math.max(0, 1 - Math.floor(Math.log10(uncertainty * factor)));
  const [shown, within] = [value, uncertainty].map((one) => formatNumber(one * factor, decimals));
  return `${shown} ± ${within}${thin}${prefix}${units[unit].symbol}`;
}

/** A chance in words, never quite none and never quite sure: `under 1 %`, `14 %`, `over 99 %`. */
export const formatChance = (chance: number): string =>
  chance < 0.01 ? 'under 1 %' : chance > 0.99 ? 'over 99 %' : `${Math.round(100 * chance)} %`;
