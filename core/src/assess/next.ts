import { type Advice, isRun } from '../advice/index.ts';
import { type Belief, type Case, checkOf, faultChances, type Reading, soundChance } from '../belief/index.ts';
import type { Check } from '../checks/index.ts';
import type { Multimeter } from '../instruments/index.ts';
import type { Apart, Gate, NextCheck } from './assessment.ts';
import { adviceText, faultFirst, faultName } from './words.ts';

/**
 * The best checks; before a low resistance is measured, the leads' null comes first, and before a run what its light asks
 * for. `runFirst`: a run on the stand comes before all of them.
 */
export function nextChecks(
  opened: Case,
  advice: Advice,
  readings: readonly Reading[],
  meter: Multimeter,
  gate: Gate | undefined,
  runFirst: boolean,
): NextCheck[] {
  const next = advice.checks.slice(0, 8).map(({ check, gain, preparation, between }) => ({
    check: check.id,
    name: check.name,
    minutes: check.minutes,
    setupMinutes: preparation.minutes,
    bits: gain.bits,
    reason: adviceText(opened, check, preparation, between),
  }));
  const best = advice.checks[0]?.check;
  const asked =
    best && (runFirst || isRun(opened, best)) ? (gate?.reasons.flatMap(({ check }) => check ?? []) ?? []) : [];
  const before = asked.map((id): NextCheck => {
    const { name, minutes } = checkOf(opened, id);
    return {
      check: id,
      name,
      minutes,
      setupMinutes: 0,
      bits: 0,
      reason: `Before it runs${runFirst ? '' : ` (${best!.name})`}; ${minutes} min.`,
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

/** A unit that is sound as likely as this is run before it is opened; any other has to be opened anyway [our estimate]. */
const likelySound = 0.5;

/**
 * Whether a unit should be run on its stand before it is taken further apart: it may well be sound, no danger forbids it,
 * and nothing was run yet. Counted by `study bench`: what running shows saves the soldering iron on most sound units.
 */
export function runsFirst(
  { subject }: Case,
  belief: Belief,
  { checks: [best], worthwhile }: Advice,
  readings: readonly Reading[],
  assembly: string,
  gate: Gate | undefined,
): boolean {
  const at = (id: string) => subject.assemblies.findIndex((state) => state.id === id);
  const stand = subject.assemblies.find(({ running, whenThere }) => running && whenThere)?.id;
  if (!stand || !best || !worthwhile || !gate || readings.some(({ check }) => check.assembly === stand)) return false;
  if (soundChance(belief) < likelySound) return false;
  // A danger stays one, and what couldn't be looked at can't be now.
  if (gate.reasons.some((reason) => !reason.check || readings.some(({ check }) => check.id === reason.check)))
    return false;
  return at(assembly) === at(stand) + 1 && at(best.check.assembly) > at(assembly);
}

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
    .map(({ between, by, clearly }) => ({ pair: faultFirst(between), by, clearly }))
    .map(({ pair: [a, b], by, clearly }) => ({
      between: [id(a), id(b)],
      names: [faultName(opened, a), faultName(opened, b)],
      check: by?.id,
      name: by?.name,
      clearly,
    }));
}
