import { formatQuantity } from './format.ts';
import { prefixes, type Unit, units } from './units.ts';

/** What a person typed: a value in the unit's base (V, Ω, A, mm, °C), over-range, or a refusal that says why. */
export type Entry = { kind: 'value'; value: number } | { kind: 'over-range' } | { kind: 'refused'; message: string };

const overRange = /^(o\.?l\.?|0\.?l\.?|over|open|inf|∞)$/i;
const infix = /^([+-]?\d+)([kKMGRr])(\d+)$/;
const plain = /^([+-]?[\d.,\s\u2009\u202f\u00a0]*\d[.,]?|[+-]?[.,]\d+)(e[+-]?\d+)?\s*([^\d\s.,]*)\s*([^\d\s.,]*)$/i;

const refuse = (message: string): Entry => ({ kind: 'refused', message });

/**
 * Reads a quantity as written on a workshop pad.
 *
 * `0.14`, `540m`, `540 mV`, `1k2`, `.48M`, `13,8`, `3.09 Meg` are values; `OL` is over-range.
 * Refused, each with a sentence that says what was understood: `1,234` (comma before exactly three
 * digits), another unit than the check's, a number no bench shows, a negative resistance.
 */
export function parseQuantity(text: string, unit: Unit): Entry {
  const typed = text.trim();
  if (typed === '') return refuse(`Nothing typed: type the reading in ${units[unit].symbol}, or OL for over-range.`);
  if (overRange.test(typed)) return { kind: 'over-range' };
  const split = infix.exec(typed.replace(/\s*(Ω|ohms?)$/i, ''));
  if (split) {
    if (unit !== 'ohms')
      return refuse(`“${typed}” reads as a resistance; this check is read in ${units[unit].symbol}.`);
    const scale = /r/i.test(split[2]!) ? 1 : prefixes[split[2]!]!;
    return accept(Number(`${split[1]}.${split[3]}`) * scale, unit, typed);
  }
  const match = plain.exec(typed);
  if (!match) return refuse(`“${typed}” is not a number: type digits, like 0.14, 540m, 1k2 or OL.`);
  const digits = plainDigits(match[1]!);
  if (digits.kind === 'refused') return digits;
  const suffix = scaleOf(match[3]! + match[4]!, unit, typed);
  if ('message' in suffix) return refuse(suffix.message);
  return accept(Number(digits.text + (match[2] ?? '')) * suffix.scale, unit, typed);
}

/** Only these are written with a prefix. */
const electrical: ReadonlySet<Unit> = new Set(['volts', 'ohms', 'amps']);

type Digits = { kind: 'digits'; text: string } | { kind: 'refused'; message: string };

/** Settles commas, points and thousands spaces; refuses where two readings are possible. */
function plainDigits(raw: string): Digits {
  const ask = (first: string, second: string): Digits => ({
    kind: 'refused',
    message: `“${raw.trim()}” could be ${first} or ${second}: type ${first} or ${second}.`,
  });
  let text = raw.replace(/(\d)[\s\u2009\u202f\u00a0](?=\d{3}(\D|$))/g, '$1');
  if (/\s/.test(text))
    return { kind: 'refused', message: `“${raw.trim()}” has a space inside the number: type one number.` };
  if (/^[+-]?[1-9]\d{0,2},\d{3}$/.test(text)) return ask(text.replace(',', '.'), text.replace(',', ''));
  if (/^[+-]?[1-9]\d{0,2}(,\d{3})+\.\d*$/.test(text)) text = text.replaceAll(',', '');
  else if (/^[+-]?[1-9]\d{0,2}(\.\d{3})+,\d*$/.test(text)) text = text.replaceAll('.', '').replace(',', '.');
  else text = text.replace(',', '.');
  return /^[+-]?(\d+\.?\d*|\.\d+)$/.test(text)
    ? { kind: 'digits', text }
    : { kind: 'refused', message: `“${raw.trim()}” has more than one decimal sign: type it again with one.` };
}

/** The scale a prefix stands for, or why prefix and unit don't fit the check. */
function scaleOf(suffix: string, unit: Unit, typed: string): { scale: number } | { message: string } {
  if (suffix === '') return { scale: 1 };
  if (unit === 'millimetres' && /^cm$/i.test(suffix)) return { scale: 10 };
  const own = [...units[unit].names].sort((a, b) => b.length - a.length);
  const name = own.find((candidate) => suffix.toLowerCase().endsWith(candidate.toLowerCase()));
  const head = name && !(name === 'mm' && suffix.length < 2) ? suffix.slice(0, suffix.length - name.length) : suffix;
  const prefix = /^meg$/i.test(head) ? 'meg' : head;
  if (prefix === '') return { scale: 1 };
  const scale = prefixes[prefix];
  if (scale !== undefined && electrical.has(unit)) return { scale };
  const other = Object.entries(units).find(([, u]) => u.names.some((n) => suffix.toLowerCase().endsWith(n)));
  return other && other[0] !== unit
    ? { message: `“${typed}” reads as ${other[0]}; this check is read in ${units[unit].symbol}.` }
    : { message: `“${suffix}” in “${typed}” is no unit known here: this check is read in ${units[unit].symbol}.` };
}

function accept(value: number, unit: Unit, typed: string): Entry {
  const { symbol, most, signed } = units[unit];
  if (!Number.isFinite(value)) return refuse(`“${typed}” is not a number the program can hold.`);
  if (Math.abs(value) > most) {
    return refuse(
      `“${typed}” was understood as ${formatQuantity(value, unit)}, more than any bench shows: check the prefix.`,
    );
  }
  if (!signed && value < 0) {
    return refuse(
      `“${typed}” is below 0 ${symbol}: if the leads were nulled in the meter, type 0; else swap nothing and read again.`,
    );
  }
  return { kind: 'value', value };
}
