import { currentClamp, rangeFor } from '@refectum/core/instruments';
import type { StandState, Watched } from '@refectum/core/checks';
import type { OutputSchool } from '../rules.ts';
import { restSeconds } from './recent-figures.ts';
import type { RunStand } from './run-stand.svelte.ts';
import { standingRpm, type StandInstruments } from './stand-instruments.svelte.ts';

/** What the post is let down to, of the rated volts, while the amps climb; and how long each may take to rest. */
const letDown = [1.06, 1.03, 1, 0.97, 0.94, 0.91];
const climbSeconds = 2.5;
/** Between two points of a sweep the windings cool. */
const coolSeconds = 3;
/** A point that doesn't come to rest is tried so often. */
const tries = 2;
/** Of what the stand can take, as much as a sweep asks of it. */
const bearableShare = 0.95;
/** A drive comes to its speed within so long [our estimate]. */
const runUpSeconds = 15;
/** All instruments are heard within so long, a slow one too [our estimate]. */
const heardSeconds = 6;
/** Where a regulator doesn't come to rest within so long, that is its state. */
const courseSeconds = 10;
/** Speeds tried for the cut-in and, from there down, for the cut-out; and the amps that are a charge. */
const cutInSpeeds = Array.from({ length: 13 }, (_, n) => 800 + 100 * n);
const cutOutSpeeds = Array.from({ length: 16 }, (_, n) => 2000 - 100 * n);
const chargingAmps = 0.8;

/** What the meter read in the states of a course. */
export interface CourseRead {
  readonly states: readonly {
    readonly name: string;
    readonly volts: number;
    /** Seconds until they rested. */
    readonly settled: number;
    /** Between the lowest and the highest within a second. */
    readonly swing: number;
  }[];
  /** Where it begins to charge, if that was looked for; `never` up to the highest speed tried. */
  readonly cutIn: number | 'never' | undefined;
  /** Where it charges no more on the way down; nothing where it never began, or the way down was broken off. */
  readonly cutOut: number | 'never' | undefined;
}

type GoesOn = () => boolean;

/** Draws more and more until the amps climb no more, and stays where they were most: what hands do with a pile. */
export async function drawMost(live: StandInstruments, volts: number): Promise<void> {
  const goesOn = live.undertake();
  live.doing = 'Drawing more until the amps climb no more…';
  if (await climb(live, volts, goesOn)) await rest(live, climbSeconds, goesOn);
  if (goesOn()) live.doing = '';
}

/** Waits until all rests; whether it did. */
const rest = (live: StandInstruments, seconds: number, goesOn: GoesOn): Promise<boolean> =>
  live.until(() => !('restless' in live.rested), seconds, goesOn);

async function climb(live: StandInstruments, volts: number, goesOn: GoesOn): Promise<boolean> {
  let most = { level: volts, amps: -Infinity };
  for (const [n, share] of letDown.entries()) {
    const level = Number((share * volts).toFixed(2));
    if (!(await (n === 0 ? live.holdVolts(level) : live.levelTo(level)))) return false;
    await rest(live, climbSeconds, goesOn);
    if (!goesOn() || !live.draws) return false;
    const read = live.lastSecond('amps');
    if (!read) {
      if (await live.unload()) live.problem = 'No amps come in: the load is off again.';
      return false;
    }
    // A rise that the clamp's last digit doesn't show is none.
    if (read.mean < most.amps + rangeFor(currentClamp, read.mean).step) break;
    most = { level, amps: read.mean };
  }
  return live.levelTo(most.level);
}

/**
 * Takes one point after another without hands: speed, load as this shop draws it, rest, point, load off, cool.
 * Ends before a point that would ask more of the stand than it has, and at whatever goes wrong.
 */
export async function sweep(
  live: StandInstruments,
  stand: RunStand,
  volts: number,
  school: OutputSchool,
): Promise<void> {
  const goesOn = live.undertake();
  const mostAmps = live.limit?.amps ?? Infinity;
  await live.readVolts();
  for (const { rpm, possible } of live.plan) {
    if (!possible) continue;
    const amps = await pointAt(live, stand, { rpm, volts, school }, goesOn);
    if (amps === undefined) break;
    if (amps > bearableShare * mostAmps) {
      live.problem = `At ${rpm} rpm the stand is near its limit: higher speeds are left to the curve.`;
      break;
    }
    if (!(await cool(live, goesOn))) break;
  }
  if (goesOn()) await stopKeeping(live);
}

/** The amps of a point that was taken; undefined where none was, with the reason told. */
async function pointAt(
  live: StandInstruments,
  stand: RunStand,
  { rpm, volts, school }: { readonly rpm: number; readonly volts: number; readonly school: OutputSchool },
  goesOn: GoesOn,
): Promise<number | undefined> {
  for (let tried = 1; goesOn(); tried++) {
    live.doing = `To ${rpm} rpm…`;
    if (!(await toSpeed(live, rpm, goesOn)) || !(await isHeard(live, rpm, goesOn))) return undefined;
    live.doing = `${rpm} rpm: load until ${school === 'most' ? 'the amps climb no more' : `${volts} V hold`}…`;
    if (!(await (school === 'most' ? climb(live, volts, goesOn) : live.holdVolts(volts)))) return undefined;
    // The load goes off by itself when its seconds are over: what rests then is another state.
    await live.until(() => !live.draws || !('restless' in live.rested), live.loadSeconds, goesOn);
    if (!goesOn()) return undefined;
    const { rested } = live;
    if (live.draws && !('restless' in rested)) {
      const taken = live.takePoint(stand);
      return (await live.unload()) && taken ? rested.amps : undefined;
    }
    // What can't be let go is said as it is.
    if (!(await live.unload())) return undefined;
    const why = 'restless' in rested ? rested.restless : 'only after the load was off';
    live.problem = `No rest at ${rpm} rpm within ${live.loadSeconds} s (${why}): the load is off again.`;
    if (tried >= tries || !(await cool(live, goesOn))) return undefined;
  }
  return undefined;
}

/** Whether all that a point is made of comes in, before anything draws; says what doesn't. */
async function isHeard(live: StandInstruments, rpm: number, goesOn: GoesOn): Promise<boolean> {
  if (await live.until(() => live.missing === undefined, heardSeconds, goesOn)) return true;
  if (goesOn()) live.problem = `Not loaded at ${rpm} rpm: no ${live.missing ?? 'readings'} come in.`;
  return false;
}

async function cool(live: StandInstruments, goesOn: GoesOn): Promise<boolean> {
  live.doing = 'Cooling…';
  await live.until(() => false, coolSeconds, goesOn);
  return goesOn();
}

/**
 * Goes through a course and reads the post's volts in each state; where that is wanted it looks for the cut-in before,
 * and for the cut-out after.
 */
export async function readCourse(
  live: StandInstruments,
  { course = [], fromCutIn }: Watched,
  commanderHertz: number | undefined,
): Promise<CourseRead | undefined> {
  const goesOn = live.undertake();
  try {
    await live.readVolts();
    // What is read without a command is the regulator's own.
    if (live.isCommanded && course.every(({ duty }) => duty === undefined)) await live.silence();
    // Amps alone tell where it charges: a shop without a clamp at a port has the volts.
    const seeks = fromCutIn && live.has('clamp');
    const cutIn = seeks ? await cutInOf(live, goesOn) : undefined;
    if (seeks && cutIn === undefined) return undefined;
    const states: CourseRead['states'][number][] = [];
    for (const state of course) {
      live.doing = `${state.name}…`;
      const seen = goesOn() ? await voltsIn(live, state, commanderHertz, goesOn) : undefined;
      if (!seen) {
        if (goesOn() && !live.problem)
          live.problem = `No rest within ${courseSeconds} s: load and drive are off again.`;
        return undefined;
      }
      states.push({ name: state.name, ...seen });
    }
    const cutOut = typeof cutIn === 'number' ? await cutOutOf(live, cutIn, goesOn) : undefined;
    return { states, cutIn, cutOut };
  } finally {
    if (goesOn()) await stopKeeping(live);
  }
}

/** Stops, and still tells what went wrong before. */
async function stopKeeping(live: StandInstruments): Promise<void> {
  const { problem } = live;
  await live.stop();
  live.problem ||= problem;
}

/** The speed at which it begins to charge; undefined where that was broken off. */
async function cutInOf(live: StandInstruments, goesOn: GoesOn): Promise<CourseRead['cutIn']> {
  for (const rpm of cutInSpeeds) {
    live.doing = `Where does it begin to charge? ${rpm} rpm…`;
    const amps = await ampsAt(live, rpm, goesOn);
    if (amps === undefined) return undefined;
    if (amps > chargingAmps) return rpm;
  }
  return 'never';
}

/** The speed, on the way down, at which it charges no more. */
async function cutOutOf(live: StandInstruments, from: number, goesOn: GoesOn): Promise<CourseRead['cutOut']> {
  if (!(await live.unload())) return undefined;
  for (const rpm of cutOutSpeeds.filter((one) => one <= from)) {
    live.doing = `Where does it charge no more? ${rpm} rpm…`;
    const amps = await ampsAt(live, rpm, goesOn);
    if (amps === undefined) return undefined;
    if (amps <= chargingAmps) return rpm;
  }
  return 'never';
}

/**
 * The clamp's amps once it turns so fast, of readings taken there; Infinity where they are beyond its range. Undefined,
 * and said, where none come in.
 */
async function ampsAt(live: StandInstruments, rpm: number, goesOn: GoesOn): Promise<number | undefined> {
  if (!(await toSpeed(live, rpm, goesOn))) return undefined;
  const isRead = () => live.amps === null || live.lastSecond('amps') !== undefined;
  if (await live.until(isRead, heardSeconds, goesOn)) return live.lastSecond('amps')?.mean ?? Infinity;
  if (goesOn()) live.problem ||= 'No amps come in: the clamp is needed for this.';
  return undefined;
}

async function toSpeed(live: StandInstruments, rpm: number, goesOn: GoesOn): Promise<boolean> {
  const there = () => (rpm === 0 ? (live.rpm ?? Infinity) < standingRpm : Math.abs((live.rpm ?? 0) / rpm - 1) < 0.01);
  if (!(await live.turn(rpm)) || !goesOn()) return false;
  if (there() || (await live.until(there, runUpSeconds, goesOn))) return true;
  if (goesOn()) live.problem ||= `It didn’t come to ${rpm} rpm within ${runUpSeconds} s: load and drive are off.`;
  return false;
}

/** The post's volts once they have come to rest in a state, or what they do while they don't. */
async function voltsIn(
  live: StandInstruments,
  { rpm, amps, duty, fromRest }: StandState,
  hertz: number | undefined,
  goesOn: GoesOn,
): Promise<{ volts: number; swing: number; settled: number } | undefined> {
  if (fromRest && !((await live.unload()) && (await toSpeed(live, 0, goesOn)))) return undefined;
  if (duty !== undefined && !(await live.command(duty, hertz))) return undefined;
  if (!(await toSpeed(live, rpm, goesOn)) || !(await live.drawAmps(amps))) return undefined;
  const began = Date.now();
  // Where no clamp reads, the volts alone come to rest.
  const isQuiet = () => (live.has('clamp') ? !('restless' in live.rested) : live.resting('volts') !== undefined);
  const rests = await live.until(isQuiet, courseSeconds, goesOn);
  const seen = live.lastSecond('volts');
  if (!goesOn() || !seen) return undefined;
  const seconds = (Date.now() - began) / 1000 - (rests ? restSeconds : 0);
  return { volts: seen.mean, swing: seen.swing, settled: Math.max(0, seconds) };
}
