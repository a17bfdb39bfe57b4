import {
  type Band,
  beliefAfter,
  type Case,
  canTell,
  checkOf,
  faultBand,
  type Conditions,
  faultChances,
  openCase,
  priorBelief,
  type Reading,
  soundBands,
} from '../belief/index.ts';
import type { Check } from '../checks/index.ts';
import type { Multimeter } from '../instruments/index.ts';
import type { Ruler, RulerBand } from './assessment.ts';
import type { Session, Situation } from './session.ts';
import { bandsText, faultName } from './words.ts';

const drawnSuspects = 5;

/**
 * The ruler of a check: the bands of a sound unit and of the suspects it would show, with the meter in hand.
 * `others`: meters that the shop has beside it.
 */
export function rulerOf(
  session: Session,
  checkId: string,
  situation: Situation,
  others: readonly Multimeter[] = [],
): Ruler | undefined {
  const { opened } = session;
  const check = checkOf(opened, checkId);
  if (check.method.kind === 'finding' || (check.method.kind === 'meter' && check.method.setup.function === 'lamp')) {
    return undefined;
  }
  const belief = session.beliefAfter(situation);
  const meter = session.meter(situation.meter);
  const conditions = { meter, celsius: situation.celsius };
  const sound = soundBands(opened, belief, check, conditions);
  const chances = faultChances(opened, belief);
  const suspects = [...chances.keys()]
    .filter((f) => chances[f]! > 0.003)
    .sort((a, b) => chances[b]! - chances[a]!)
    .flatMap((f) => {
      const band = faultBand(opened, belief, check, conditions, f);
      return band && differs(band, sound) ? [{ name: faultName(opened, f), chance: chances[f]!, band }] : [];
    });
  const drawn = mergeAlike(suspects).slice(0, drawnSuspects);
  const tells = canTell(opened, belief, check, conditions);
  const bands = [...sound, ...drawn.map((s) => s.band)].filter((band) => band.over < 0.5);
  const { from, to } = ends(check, bands);
  const top = topOf(check, meter);
  return {
    check: check.id,
    unit: check.unit as Ruler['unit'],
    from,
    to: top === undefined ? to : Math.min(to, top),
    top,
    sound: soundRows(sound),
    suspects: drawn.map(({ name, chance, band }) => ({ name, chance, ...drawnBand(band) })),
    canTell: tells,
    instead: tells ? [] : insteadOf(session, check, situation, others),
    expected: bandsText(check, sound),
  };
}

/** Builds that read the same share one band; those that don't are named. */
function soundRows(sound: ReturnType<typeof soundBands>): Ruler['sound'] {
  const groups: (typeof sound)[] = [];
  for (const band of sound) {
    const group = groups.find(([first]) => alike(first!, band));
    if (group) group.push(band);
    else groups.push([band]);
  }
  const name = (group: typeof sound) => `sound if ${group.map(({ build }) => build.name).join(', or ')}`;
  return groups.map((group) => ({ ...drawnBand(group[0]!), name: groups.length > 1 ? name(group) : 'sound' }));
}

const drawnBand = ({ low, high, over }: Band): RulerBand => ({ low, high, over: over >= 0.5 });

/** A suspect is drawn when its band's middle lies outside a sound unit's, or one is over-range and the other isn't. */
const differs = (band: Band, sound: readonly Band[]): boolean =>
  sound.every(
    (s) => band.over >= 0.5 !== s.over >= 0.5 || (band.over < 0.5 && (band.middle < s.low || band.middle > s.high)),
  );

interface Drawn {
  readonly name: string;
  readonly chance: number;
  readonly band: Band;
}

/** Suspects that would read the same share one band. */
function mergeAlike(suspects: readonly Drawn[]): Drawn[] {
  const merged: (Drawn & { others: number })[] = [];
  for (const suspect of suspects) {
    const same = merged.findIndex(({ band }) => alike(band, suspect.band));
    if (same < 0) merged.push({ ...suspect, others: 0 });
    else {
      const { name, chance, band, others } = merged[same]!;
      merged[same] = { name, chance: chance + suspect.chance, band, others: others + 1 };
    }
  }
  return merged.map(({ others, ...rest }) => ({
    ...rest,
    name: others ? `${rest.name}, or ${others} more` : rest.name,
  }));
}

function alike(a: Band, b: Band): boolean {
  if (a.over >= 0.5 || b.over >= 0.5) return a.over >= 0.5 && b.over >= 0.5;
  return Math.abs(a.middle - b.middle) < 0.35 * Math.min(a.high - a.low, b.high - b.low);
}

function ends(check: Check, bands: readonly Band[]): { from: number; to: number } {
  const high = Math.max(
    ...bands.map((band) => band.high),
    check.unit === 'volts' ? 0.6 : check.unit === 'ohms' ? 0.5 : 10,
  );
  // Live volts lie close together, far from nothing.
  const live = check.method.kind === 'meter' && check.method.setup.function === 'volts' && !check.method.setup.feed;
  const low = Math.min(...bands.map((band) => band.low));
  if (!live || !(low > high / 2)) return { from: 0, to: high * 1.12 };
  const reach = high - low;
  return { from: low - 0.25 * reach, to: high + 0.25 * reach };
}

function topOf({ method }: Check, meter: Multimeter): number | undefined {
  if (method.kind !== 'meter') return undefined;
  const { function: use, held } = method.setup;
  if (use === 'diode') return meter.diode.fullScale;
  return use === 'ohms' ? meter.ohms.at(held === 'lowest' ? 0 : -1)!.fullScale : undefined;
}

/** What would tell where this meter can't: another meter of the shop, another check of the same thing. */
function insteadOf(
  session: Session,
  check: Check,
  { meter, celsius }: Situation,
  others: readonly Multimeter[],
): string[] {
  const { subject, complaint } = session.opened;
  const better = others.filter((other) => {
    if (other.id === meter) return false;
    const opened = openCase(subject, complaint, [other]);
    const conditions = { meter: other, celsius };
    const nulled = beliefAfter(opened, priorBelief(opened), leadsNull(opened, other.leadOhms, conditions));
    return canTell(opened, nulled, checkOf(opened, check.id), conditions);
  });
  return [
    ...better.map((other) => other.name),
    ...(check.unit === 'ohms' ? [dropOf(session, check) ?? 'volts over amps: 5 A through it, volts across it'] : []),
  ];
}

/** The check that measures the same places by volts under current, named; none where there is none. */
function dropOf({ opened }: Session, { method }: Check): string | undefined {
  if (method.kind !== 'meter') return undefined;
  const { red, black } = method.setup;
  const same = opened.checks.find(({ method: other }) => {
    return (
      other.kind === 'meter' &&
      other.setup.function === 'drop' &&
      other.setup.red === red &&
      other.setup.black === black
    );
  });
  return same && `“${same.name}”`;
}

/** The leads' null as it would come out with a meter. */
function leadsNull(opened: Case, ohms: number, conditions: Conditions): Reading {
  const check = opened.checks.find(({ method }) => method.kind === 'leads')!;
  return { check, outcome: { kind: 'value', value: ohms }, ...conditions };
}
