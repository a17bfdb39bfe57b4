import { anyOutcomes, type Check, findingsOf, mayShow, type Outcome } from '@refectum/core/checks';
import { parseQuantity, type Unit } from '@refectum/core/quantity';

/** What was typed at a check, as its outcome, or what is wrong with it. */
export function outcomeTyped(entry: string, check: Check, celsius: number): Outcome | { message: string } {
  const any = anyOutcomes.find(({ key }) => key === entry.trim().toLowerCase());
  if (any && mayShow(check, any)) return { kind: any.kind };
  const findings = findingsOf(check);
  return findings.length ? findingTyped(entry, check, findings, celsius) : numberTyped(entry, check);
}

function numberTyped(entry: string, check: Check): Outcome | { message: string } {
  const read = parseQuantity(entry, check.unit);
  if (read.kind === 'refused') return { message: read.message };
  if (read.kind === 'over-range' && check.unit === 'millimetres')
    return { message: 'A length has no over-range: type it in mm.' };
  return read.kind === 'value' ? { kind: 'value', value: read.value } : { kind: 'over-range' };
}

function findingTyped(
  entry: string,
  { method, unit }: Check,
  findings: ReturnType<typeof findingsOf>,
  celsius: number,
): Outcome | { message: string } {
  const chosen = findings[Number(entry.trim()) - 1];
  if (chosen) return { kind: 'finding', finding: chosen.id };
  const watched = method.kind === 'finding' ? method.watched : undefined;
  const seen = watched && twoTyped(entry, unit);
  if (seen) return { kind: 'finding', finding: watched.says(seen, celsius) };
  const example = unit === 'volts' ? '14.0 14.2' : '3.1 3.4';
  const numbers = watched ? ` or ${watched.asks}, like ${example}` : '';
  return {
    message: `Type a number from 1 to ${findings.length}${numbers}, or touch one: ${findings.map((f, i) => `${i + 1} ${f.name}`).join(', ')}.`,
  };
}

/** Two readings with a space between; over-range is the highest of all. */
function twoTyped(entry: string, unit: Unit): readonly number[] | undefined {
  const read = entry
    .trim()
    .split(/\s+/)
    .map((text) => parseQuantity(text, unit));
  const values = read.map((one) => (one.kind === 'value' ? one.value : one.kind === 'over-range' ? Infinity : NaN));
  return values.length === 2 && !values.some(Number.isNaN) ? values : undefined;
}
