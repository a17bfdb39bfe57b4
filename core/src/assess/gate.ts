import { type Belief, type Case, chanceThat, faultChances, type Reading } from '../belief/index.ts';
import { formatChance } from '../quantity/index.ts';
import type { Gate } from './assessment.ts';

/** A danger less likely than this doesn't stop a run [our estimate]. */
const bearable = 0.05;

/** Whether the unit may run, on the stand or clamped, by what was read at rest. Undefined for what never runs there. */
export function gateOf(opened: Case, belief: Belief, readings: readonly Reading[]): Gate | undefined {
  const { standRules } = opened.subject;
  if (!standRules) return undefined;
  const missing = standRules.first.flatMap((id) => {
    const check = opened.checks.find((one) => one.id === id);
    const done = readings.some((reading) => reading.check.id === id && reading.outcome.kind !== 'no-access');
    return check && !done ? [{ id: `not-yet:${id}`, check: id, why: `Not looked at yet: ${check.name}.` }] : [];
  });
  const chances = faultChances(opened, belief);
  const dangers = standRules.dangers.flatMap(({ species, name, why }) => {
    const isOne = (f: number) => species.includes(opened.faults[f]!.species);
    // The chances of each add up to at least that of any.
    if (chances.reduce((sum, chance, f) => (isOne(f) ? sum + chance : sum), 0) < bearable) return [];
    const chance = chanceThat(opened, belief, (faults) => faults.some(isOne));
    return chance >= bearable
      ? [{ id: `danger:${species[0]}`, check: undefined, why: `${name}, ${formatChance(chance)} likely: ${why}.` }]
      : [];
  });
  const reasons = [...dangers, ...missing];
  return { green: reasons.length === 0, reasons };
}
