import type { Check } from '@refectum/core/checks';
import type { TakenReading } from '$lib/job.ts';

/** What a check under current has in the bench supply's lead, ohms. */
const resistorOf = (check: Check | undefined): number | undefined =>
  check?.method.kind === 'meter' ? check.method.setup.feed?.seriesOhms : undefined;

/** Ohms in the bench supply's lead: what a check needs, where something else was in it for the last reading. */
export function otherResistor(
  check: Check,
  checks: readonly Check[],
  standing: readonly TakenReading[],
): { readonly needed: number; readonly before: number } | undefined {
  const needed = resistorOf(check);
  const read = standing.filter(({ outcome }) => outcome.kind !== 'no-access');
  const fed = read.map(({ check: id }) => resistorOf(checks.find((one) => one.id === id)));
  const before = fed.findLast((ohms) => ohms !== undefined);
  return needed === undefined || before === undefined || needed === before ? undefined : { needed, before };
}
