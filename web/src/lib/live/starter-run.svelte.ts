import type { Check, RunSetup } from '@refectum/core/checks';
import { formatQuantity, type Unit } from '@refectum/core/quantity';
import type { Bench, Shown } from './bench.svelte.ts';
import type { Captured, captureTrace } from './live-words.ts';
import { heldNewtonMetres, type StandInstruments } from './stand-instruments.svelte.ts';
import { timers } from './timers.svelte.ts';

type Probes = RunSetup['probes'];
type Caught = Awaited<ReturnType<typeof captureTrace>>;

/** Some turns of steady running; fast enough for bars at full speed. */
export const watched = { seconds: 1, points: 100_000 } as const;

/** What is read rests within so long, or the run is off again; held, sooner. */
const restSeconds = 8;
const heldSeconds = 3;
/** It gathers speed first. */
const runUpSeconds = 1.2;
/** A meter that is on its way to another point shows the old one. */
const probeSeconds = 1.6;

const resolution: Partial<Record<Unit, number>> = { amps: 1, volts: 0.001, rpm: 1, newtonMetres: 0.1 };

/** One feeding of a starter, read by itself: all that one state of the brake can tell, as long as the rest before it is over. */
export class StarterRun {
  readonly #bench: () => Bench;
  readonly #live: StandInstruments;
  readonly #moveProbes: ((probes: Probes) => Promise<void>) | undefined;
  readonly #watch: () => Promise<Caught | undefined>;
  #run = 0;
  /** Where the probes of a simulated bench sit. */
  #at: string | undefined;
  /** What an oscilloscope saw of the last run that was read. */
  #seen = $state.raw<{ readonly tag: number; readonly round: number; readonly trace: Captured }>();
  doing = $state('');
  problem = $state('');

  /**
   * `watch`: a trace of the current, where an oscilloscope is at a port. `moveProbes`: what the hands of a simulated bench
   * do; at a real one they are somebody's.
   */
  constructor(
    bench: () => Bench,
    live: StandInstruments,
    watch: () => Promise<Caught | undefined>,
    moveProbes?: (probes: Probes) => Promise<void>,
  ) {
    this.#bench = bench;
    this.#live = live;
    this.#watch = watch;
    this.#moveProbes = moveProbes;
  }

  /** The trace of a unit's last run, until it is read, or worked on. */
  traceOf(tag: number): Captured | undefined {
    const seen = this.#seen;
    return seen?.tag === tag && seen.round === this.#bench().round ? seen.trace : undefined;
  }
  forgetTrace(): void {
    this.#seen = undefined;
  }

  /** What is read in the same run and isn't yet, the check at hand first. */
  pending(check: Check): readonly Check[] {
    if (check.method.kind !== 'run') return [];
    return [check, ...this.#left(check).filter((other) => other !== check && other.method.kind === 'run')];
  }

  /** What isn't read yet of the run that a check is of. */
  #left({ run }: Check): readonly Check[] {
    const read = new Set(this.#bench().standing.map((reading) => reading.check));
    return this.#bench().checks.filter((other) => run !== undefined && other.run === run && !read.has(other.id));
  }

  /** Feeds it, reads, and lets go. Ends at whatever goes wrong, its battery off. */
  async read(check: Check): Promise<void> {
    const { method } = check;
    if (method.kind !== 'run') return;
    const { held } = method.setup;
    const isHeld = held.rpm === 0;
    const runs = isHeld || held.newtonMetres !== undefined;
    const { tag } = this.#bench().job;
    if (runs && !this.#mayFeed()) return;
    const own = ++this.#run;
    const goesOn = () => own === this.#run;
    /** The clock has the last word over what is fed. */
    const feeds = () => goesOn() && (!runs || timers.left(isHeld ? 'held' : 'spin') !== undefined);
    this.problem = '';
    const { amps: pileAmps } = held;
    const seen: { check: Check; value: number }[] = [];
    const showsTurns = this.#left(check).some(({ method }) => method.kind === 'finding' && method.turned);
    try {
      const groups = [...Map.groupBy(this.pending(check), (one) => JSON.stringify(probesOf(one)))];
      // The probes are there before it is fed: its seconds are few.
      if (!(await this.#probesAt(groups[0]![0], goesOn))) return;
      if (pileAmps !== undefined && !(await this.#pile(pileAmps, goesOn))) return;
      if (runs && !(await this.#feed(isHeld ? heldNewtonMetres : held.newtonMetres!, isHeld, goesOn))) return;
      if (runs && !isHeld) {
        this.doing = 'It runs up…';
        if (!(await this.#pause(runUpSeconds, feeds))) return;
      }
      for (const [n, [probes, checks]] of groups.entries()) {
        // Held, only what the probes show where they are; at a real bench somebody's hands are on them: one point at a time.
        if (n > 0 && (isHeld || !this.#moveProbes)) break;
        const read = (await this.#probesAt(probes, feeds)) ? await this.#readOnce(checks, held, feeds) : undefined;
        if (!read) {
          if (goesOn()) this.problem ||= 'No rest: the battery is off again. Nothing was taken from this point on.';
          break;
        }
        seen.push(...read);
      }
      if (showsTurns && seen.length && feeds()) await this.#watchTurns(tag, feeds);
    } finally {
      if (goesOn()) await this.stop();
    }
    // Another unit came on screen meanwhile: these are not its readings.
    if (this.#bench().job.tag !== tag) return;
    await this.#bench().takeRun(seen.map(({ check: one, value }) => shown(one, value)));
  }

  /** What an oscilloscope sees of the same run, for whoever wants it later. */
  async #watchTurns(tag: number, feeds: () => boolean): Promise<void> {
    this.doing = 'The oscilloscope watches…';
    const trace = await this.#watch();
    if (trace && !('why' in trace) && feeds()) this.#seen = { tag, round: this.#bench().round, trace };
  }

  async #readOnce(checks: readonly Check[], held: RunSetup['held'], feeds: () => boolean) {
    this.doing = 'Reading…';
    // What a pile does to a battery is read at the end of its time.
    if (held.amps !== undefined && !(await this.#pause(timers.left('pile') ?? 0, feeds))) return undefined;
    return this.#resting(checks, held.rpm === 0 ? heldSeconds : restSeconds, feeds);
  }

  /** Something done while it spins free, fed for it and let go after; undefined where that ended before. */
  async during<T>(doing: string, act: () => Promise<T>): Promise<T | undefined> {
    if (!this.#mayFeed()) return undefined;
    const own = ++this.#run;
    const goesOn = () => own === this.#run;
    const feeds = () => goesOn() && timers.left('spin') !== undefined;
    this.problem = '';
    try {
      if (!(await this.#feed(0, false, goesOn))) return undefined;
      this.doing = 'It runs up…';
      if (!(await this.#pause(runUpSeconds, feeds))) return undefined;
      this.doing = doing;
      const done = await act();
      return feeds() ? done : undefined;
    } finally {
      if (goesOn()) await this.stop();
    }
  }

  async stop(): Promise<void> {
    this.#run++;
    this.doing = '';
    timers.stop('spin');
    timers.stop('held');
    timers.stop('pile');
    await this.#live.stop();
  }

  /** Whether it has rested and nobody else feeds it; says so where not. */
  #mayFeed(): boolean {
    const left = timers.restOf(this.#bench().job.tag);
    if (left !== undefined) this.problem = `It rests ${left} s yet: its windings are warm from the last run.`;
    else if (this.#live.isFed) this.problem = 'It is fed already, from another screen: wait until that is over.';
    else return true;
    return false;
  }

  /** Who lets go meanwhile has the last word. */
  async #feed(newtonMetres: number, isHeld: boolean, goesOn: () => boolean): Promise<boolean> {
    this.doing = 'Brake and battery…';
    this.#seen = undefined;
    await this.#live.readVolts();
    if (!goesOn()) return false;
    if (this.#live.has('stand') && !(await this.#live.brake(newtonMetres))) return this.#refused();
    if (!goesOn()) return false;
    const isFed = await this.#live.feed(true);
    if (!goesOn()) return this.#letGo();
    if (!isFed) return this.#refused();
    timers.start(isHeld ? 'held' : 'spin', this.#bench().job.tag);
    return true;
  }
  /** Draws so much from the battery for the time that the test wants. */
  async #pile(amps: number, goesOn: () => boolean): Promise<boolean> {
    this.doing = `The pile draws ${amps} A…`;
    await this.#live.readVolts();
    if (!goesOn()) return false;
    const draws = await this.#live.pile(amps);
    if (!goesOn()) return this.#letGo();
    if (!draws) return this.#refused();
    timers.start('pile', this.#bench().job.tag);
    return true;
  }
  async #letGo(): Promise<false> {
    await this.#live.stop();
    return false;
  }
  #refused(): false {
    this.problem = this.#live.problem || 'No supply at a port feeds it.';
    this.doing = '';
    return false;
  }

  /** Moves the probes of a simulated bench, where they aren't there already. */
  async #probesAt(probes: string, goesOn: () => boolean): Promise<boolean> {
    if (!this.#moveProbes || this.#at === probes) return goesOn();
    this.doing = 'Probes on their way…';
    await this.#moveProbes(JSON.parse(probes) as Probes);
    this.#at = probes;
    return this.#pause(probeSeconds, goesOn);
  }

  async #pause(seconds: number, goesOn: () => boolean): Promise<boolean> {
    await new Promise((done) => setTimeout(done, 1000 * seconds));
    return goesOn();
  }

  /** What each check's instrument shows, once all of them rest. */
  async #resting(
    checks: readonly Check[],
    seconds: number,
    goesOn: () => boolean,
  ): Promise<{ check: Check; value: number }[] | undefined> {
    const end = Date.now() + 1000 * seconds;
    while (Date.now() < end) {
      await new Promise((done) => setTimeout(done, 100));
      if (!goesOn()) return undefined;
      const shown = checks.flatMap((check) => {
        const value = this.#shown(check);
        return value === undefined ? [] : [{ check, value }];
      });
      if (shown.length === checks.length) return shown;
    }
    return undefined;
  }

  #shown({ method }: Check): number | undefined {
    if (method.kind !== 'run') return undefined;
    const { instrument } = method.setup;
    if (instrument === 'clamp') return this.#live.resting('amps');
    if (instrument === 'voltmeter') return this.#live.resting('volts');
    if (instrument === 'tachometer') return this.#live.resting('rpm');
    return this.#live.words.stand?.newtonMetres;
  }
}

function shown(check: Check, read: number): Shown {
  const value = Number((Math.round(read / resolution[check.unit]!) * resolution[check.unit]!).toFixed(4));
  return { check, outcome: { kind: 'value', value }, typed: `${formatQuantity(value, check.unit)}, from the bench` };
}

const probesOf = ({ method }: Check): Probes | undefined => (method.kind === 'run' ? method.setup.probes : undefined);
