import type { Reading } from '../belief/index.ts';
import { readingSigma } from '../instruments/index.ts';
import { formatWithin } from '../quantity/index.ts';

/** Above this the leads don't matter, in ohms. */
export const leadsMatter = 50;

/** The null that holds for a reading: the last one before it, else the first one after. */
export function nullFor<R>(reading: R, all: readonly R[], isNull: (one: R) => boolean): R | undefined {
  const at = all.indexOf(reading);
  return all.slice(0, at).findLast(isNull) ?? all.slice(at).find(isNull);
}

/** A low resistance less the leads' null, and what to say when it came out below. */
export function netOf(
  reading: Reading,
  all: readonly Reading[],
): { text: string; repeat: string | undefined } | undefined {
  const { check, outcome, meter } = reading;
  const { method } = check;
  if (method.kind !== 'meter' || method.setup.function !== 'ohms' || method.isolation) return undefined;
  const nulls = (r: Reading) => r.check.method.kind === 'leads' && r.meter.id === meter.id;
  const leads = nullFor(reading, all, nulls);
  if (outcome.kind !== 'value' || outcome.value > leadsMatter || leads?.outcome.kind !== 'value') return undefined;
  const range = meter.ohms[0]!;
  const net = outcome.value - leads.outcome.value;
  const sigma = Math.hypot(readingSigma(range, outcome.value), readingSigma(range, leads.outcome.value));
  const text = `${formatWithin(Math.max(0, net), 2 * sigma, 'ohms')} without leads`;
  const repeat = 'Below the leads’ null: check the leads, and take it again.';
  return { text, repeat: -net > 2 * sigma ? repeat : undefined };
}
