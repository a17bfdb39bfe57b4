import { countSigma, currentClamp, gainSigma, rangeFor } from '../instruments/index.ts';
import { normalCdf } from '../numeric/index.ts';

/** A key-off drain followed fuse by fuse. The log only grows; what it says is read off it anew each time. */

export type DrainStep =
  /** Key out, doors shut and latched: from now on the modules may fall asleep. */
  | { readonly kind: 'shut' }
  /** The drain as it is, with whatever was left out. */
  | { readonly kind: 'now'; readonly amps: number }
  /** The drain with this circuit out; put back afterwards unless it is left out. */
  | { readonly kind: 'out'; readonly circuit: string; readonly amps: number; readonly leftOut: boolean }
  | { readonly kind: 'struck'; readonly step: string };

export interface DrainEntry {
  readonly id: string;
  /** ISO 8601. */
  readonly at: string;
  readonly step: DrainStep;
}

/** The one circuit that is on no fuse of the box. */
export const outputCable = 'Output cable off the unit';

/** Minutes until modules sleep: up to 30 [common practice, no source]. */
export const sleepMinutes = 30;
/** A. Asleep, a vehicle draws at most 0.05 to 0.1 A [common practice, no source]: the lower, so that none is missed. */
export const mostAsleep = 0.05;
/** A. Less than this a module may draw asleep, each on its own [from memory]. */
export const worthFollowing = 0.02;
/** JCGM 106: said only with this probability. */
const sure = 0.95;

export interface DrainShare {
  readonly id: string;
  readonly circuit: string;
  /** What the drain fell by, A, and its standard uncertainty. */
  readonly amps: number;
  readonly sigma: number;
  readonly leftOut: boolean;
  readonly word: 'drains' | 'nothing' | 'can’t tell' | 'woke';
  /** Read before everything was asleep. */
  readonly early: boolean;
}

export interface DrainLog {
  readonly shutAt: string | undefined;
  /** When everything may be taken to be asleep. */
  readonly asleepAt: string | undefined;
  /** The newest drain with everything in, A. */
  readonly total: number | undefined;
  /** What still drains with what was left out, A. */
  readonly rest: number | undefined;
  readonly shares: readonly DrainShare[];
  /** Those that drain, the largest first. */
  readonly found: readonly DrainShare[];
  /** Whether what was found explains the drain. */
  readonly explained: boolean;
  readonly conclusion: string;
}

/** Standard uncertainty of a difference of two readings of one clamp: the gain error is shared where the range is. */
function differenceSigma(before: number, after: number): number {
  const [one, two] = [rangeFor(currentClamp, before), rangeFor(currentClamp, after)];
  const gain =
    one === two ? gainSigma(one) * (before - after) : Math.hypot(gainSigma(one) * before, gainSigma(two) * after);
  return Math.hypot(gain, countSigma(one), countSigma(two));
}

function wordOf(share: number, sigma: number): DrainShare['word'] {
  // Drawing more without the circuit than with it: something else woke meanwhile.
  if (normalCdf(-share / sigma) >= sure) return 'woke';
  const chance = 1 - normalCdf((worthFollowing - share) / sigma);
  return chance >= sure ? 'drains' : chance <= 1 - sure ? 'nothing' : 'can’t tell';
}

const amps = (value: number): string => `${value < 1 ? value.toFixed(3) : value.toFixed(2)} A`;

/** What a log says, whatever its length. Entries in any order of arrival: they are read by their time. */
export function readDrainLog(entries: readonly DrainEntry[]): DrainLog {
  const struck = new Set(entries.flatMap(({ step }) => (step.kind === 'struck' ? [step.step] : [])));
  const standing = entries.filter(({ id }) => !struck.has(id)).sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
  let shutAt: string | undefined;
  let total: number | undefined;
  /** The drain with everything in that isn't left out. */
  let before: number | undefined;
  const out = new Set<string>();
  const shares: DrainShare[] = [];
  for (const { id, at, step } of standing) {
    if (step.kind === 'shut') {
      // Opened and shut again: everything woke, and is in.
      shutAt = at;
      before = total = undefined;
      out.clear();
    } else if (step.kind === 'now') {
      before = step.amps;
      if (out.size === 0) total = step.amps;
    } else if (step.kind === 'out' && before !== undefined) {
      const sigma = differenceSigma(before, step.amps);
      const share = before - step.amps;
      const word = wordOf(share, sigma);
      const { circuit, leftOut } = step;
      shares.push({ id, circuit, amps: share, sigma, leftOut, word, early: isEarly(shutAt, at) });
      if (leftOut && word !== 'woke') {
        out.add(circuit);
        before = step.amps;
      }
    }
  }
  const found = shares.filter(({ word }) => word === 'drains').sort((a, b) => b.amps - a.amps);
  const putBack = found.filter(({ leftOut }) => !leftOut).reduce((sum, share) => sum + share.amps, 0);
  const rest = before === undefined ? undefined : Math.max(before - putBack, 0);
  const explained = found.length > 0 && rest !== undefined && rest <= mostAsleep;
  return {
    shutAt,
    asleepAt: shutAt && new Date(Date.parse(shutAt) + sleepMinutes * 60_000).toISOString(),
    total,
    rest,
    shares,
    found,
    explained,
    conclusion: conclude({ total, rest, shares, found, explained }),
  };
}

const isEarly = (shutAt: string | undefined, at: string): boolean =>
  shutAt === undefined || Date.parse(at) < Date.parse(shutAt) + sleepMinutes * 60_000;

function conclude({
  total,
  rest,
  shares,
  found,
  explained,
}: Pick<DrainLog, 'total' | 'rest' | 'shares' | 'found' | 'explained'>): string {
  if (total === undefined) return '';
  if (total <= mostAsleep && found.length === 0)
    return `${amps(total)} in all: no more than a sleeping vehicle may draw (${amps(mostAsleep)}). Nothing to follow.`;
  const names = found.map(({ circuit, amps: share }) =>
    circuit === outputCable ? `the unit itself (${amps(share)})` : `“${circuit}” (${amps(share)})`,
  );
  const unit = found.some(({ circuit }) => circuit === outputCable)
    ? ' What goes with the output cable leaks in the unit: on the bench, rectifier and output capacitor first.'
    : '';
  if (explained) return `Of ${amps(total)}, ${names.join(' and ')}: that explains it, ${amps(rest!)} is left.${unit}`;
  if (found.length)
    return `Of ${amps(total)}, ${names.join(' and ')}; ${amps(rest!)} is left, more than ${amps(mostAsleep)}: go on.${unit}`;
  const searched = shares.filter(({ word }) => word === 'nothing' || word === 'can’t tell');
  if (searched.length === 0) return `${amps(total)} in all, more than ${amps(mostAsleep)}: pull the first fuse.`;
  const through = searched.length === 1 ? 'circuit' : `${searched.length} circuits`;
  const surely = searched.some(({ word }) => word === 'can’t tell') ? 'not surely' : 'not';
  return `${amps(total)} in all, and ${surely} through the ${through} pulled so far: go on; then the output cable, then what is on no fuse.`;
}
