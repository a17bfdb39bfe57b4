import { type Advice, isRun } from '../advice/index.ts';
import { type Belief, type Case, checkOf, faultChances, type Reading } from '../belief/index.ts';
import type { Check } from '../checks/index.ts';
import type { Multimeter } from '../instruments/index.ts';
import type { Apart, Gate, NextCheck } from './assessment.ts';
import { adviceText, faultName } from './words.ts';

/** The best checks; before a low resistance is measured, the leads' null comes first, and before a run what its light asks for. */
export function nextChecks(
  opened: Case,
  advice: Advice,
  readings: readonly Reading[],
  meter: Multimeter,
  gate: Gate | undefined,
): NextCheck[] {
  const next = advice.checks.slice(0, 8).map(({ check, gain, setupMinutes, between }) => ({
    check: check.id,
    name: check.name,
    minutes: check.minutes,
    setupMinutes,
    bits: gain.bits,
    reason: adviceText(opened, check, setupMinutes, between),
  }));
  const best = advice.checks[0]?.check;
  const asked = best && isRun(opened, best) ? (gate?.reasons.flatMap(({ check }) => check ?? []) ?? []) : [];
  const before = asked.map((id): NextCheck => {
    const { name, minutes } = checkOf(opened, id);
    return {
      check: id,
      name,
      minutes,
      setupMinutes: 0,
      bits: 0,
      reason: `Before it runs (${best!.name}); ${minutes} min.`,
    };
  });
  if (before.length) return [...before, ...next.filter(({ check }) => !asked.includes(check))];
  const nulled = readings.some((r) => r.check.method.kind === 'leads' && r.meter.id === meter.id);
  const leads = opened.checks.find((check) => check.method.kind === 'leads');
  if (!best || !leads || nulled || !needsNull(best)) return next;
  const reason = `Taken off every low resistance, the next one too (${best.name}); ${leads.minutes} min.`;
  return [{ check: leads.id, name: leads.name, minutes: leads.minutes, setupMinutes: 0, bits: 0, reason }, ...next];
}

const needsNull = ({ method }: Check): boolean =>
  method.kind === 'meter' && method.setup.function === 'ohms' && !method.isolation;

export function stopReason({ subject }: Case, { checks, worthwhile }: Advice): string | undefined {
  if (checks.length === 0) return subject.stops.done;
  return worthwhile ? undefined : subject.stops.idle;
}

/** Suspects with less chance than this are told from others by checks that nobody would do for it. */
const leastApart = 0.02;

export function apartOf(opened: Case, belief: Belief, { apart }: Advice): Apart[] {
  const chances = faultChances(opened, belief);
  const likely = (fault: number | undefined) => fault === undefined || chances[fault]! >= leastApart;
  const id = (fault: number | undefined) => (fault === undefined ? 'nothing' : opened.faults[fault]!.id);
  return apart
    .filter(({ between }) => between.every(likely))
    .map(({ between: [a, b], by }) => ({
      between: [id(a), id(b)],
      names: [faultName(opened, a), faultName(opened, b)],
      check: by?.id,
      name: by?.name,
    }));
}
