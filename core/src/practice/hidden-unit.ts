import { type Check, findingsOf, type Outcome, type RunSetup } from '../checks/index.ts';
import { Circuit, type Network, networkBetween } from '../circuit/index.ts';
import {
  countSigma,
  gainSigma,
  measure,
  type Multimeter,
  rangeFor,
  runRanges,
  type Setup,
  type Shown,
} from '../instruments/index.ts';
import {
  type Build,
  type Fault,
  heldAt,
  type Off,
  type Run,
  runningFault,
  type RunningFault,
  type Spin,
  type Subject,
} from '../machines/index.ts';
import { seeded } from '../numeric/index.ts';

/** kT/q at 25 °C, V. */
const thermalVolts = 0.02569;

/**
 * How units differ from their kind: half-widths of bells (three uniform numbers added up; the standard deviation is a
 * third of it), by what a resistance or junction says it is spread by.
 */
export interface Strewing {
  /** Relative. */
  readonly resistors: Readonly<Record<string, number>>;
  /** In ln(ohms). */
  readonly logs: Readonly<Record<string, number>>;
  /** V. */
  readonly junctions: Readonly<Record<string, number>>;
  /** Relative: of flux, reactances and what else a running unit has. */
  readonly running: Readonly<Record<string, number>>;
  /** K: how far the part is from what was typed. */
  readonly celsius: number;
  /** Ω: how far the leads are from what the meter's maker says. */
  readonly leads: number;
  /** How far a sound quantity may lie from its nominal value, as a factor. */
  readonly within: Readonly<Record<string, readonly [number, number]>>;
  /** Share of readings that have nothing to do with the unit. */
  readonly slips: number;
}

export interface Hidden {
  readonly fault: Fault;
  readonly severity: number;
}

export type Measured = Pick<Shown, 'value' | 'range' | 'fullScale'>;

/** However wide units are strewn, so much of what makes one run is there: less is no machine. */
const leastLeft = 0.05;

/** A unit with something hidden in it, drawn by lot: each like its kind, none like another. */
export class HiddenUnit {
  readonly hidden: readonly Hidden[];
  readonly #random: () => number;
  readonly #subject: Subject;
  readonly #strewing: Strewing;
  readonly #build: Build;
  protected readonly meter: Multimeter;
  protected readonly celsius: number;
  readonly #seed: number;
  readonly #sway = new Map<string, number>();
  readonly #gains = new Map<number, number>();
  readonly #scale: number;
  readonly #leadsOff: number;

  /** `scale`: how many times wider than stated the units are strewn. */
  constructor(
    random: () => number,
    subject: Subject,
    meter: Multimeter,
    hidden: readonly Hidden[],
    strewing: Strewing,
    scale = 1,
  ) {
    this.#random = random;
    this.#subject = subject;
    this.#strewing = strewing;
    this.#scale = scale;
    this.hidden = hidden;
    this.#seed = Math.floor(random() * 2 ** 31);
    const builds = subject.builds.filter(({ contrary }) => !contrary);
    let left = random() * builds.reduce((sum, build) => sum + build.prior, 0);
    this.#build = builds.find((build) => (left -= build.prior) <= 0) ?? builds[0]!;
    this.celsius = 20 + strewing.celsius * this.#bell();
    this.#leadsOff = strewing.leads * this.#bell();
    this.meter = { ...meter, leadOhms: this.leadOhms(meter) };
  }

  /** What the meter shows, a slip now and then included. What is seen or heard stays what it was, looked at again. */
  read(check: Check): Outcome {
    const findings = findingsOf(check);
    if (this.#random() < this.#strewing.slips)
      return this.#slip(
        check,
        findings.map(({ id }) => id),
      );
    const { method } = check;
    const present = this.hidden.map(({ fault: { species, place }, severity }) => ({ species, place, severity }));
    if (method.kind === 'finding' && method.traced && this.#subject.spin) {
      const { amps, tap, volts } = this.#onStand();
      const seen = method.traced(amps, { orders: tap, share: tap.mean / volts.mean });
      if (seen) return { kind: 'finding', finding: seen };
    }
    if (method.kind === 'finding') {
      const chances = method.chances(present);
      let left = this.#diceOf(check.id)();
      const at = chances.findIndex((chance) => (left -= chance) < 0);
      return { kind: 'finding', finding: findings[Math.max(at, 0)]!.id };
    }
    if (method.kind === 'length') {
      const { mean, sigma } = method.expected(present);
      const length = mean + 2 * sigma * this.#bell(this.#diceOf(check.id));
      return { kind: 'value', value: Math.max(0.1, Math.round(length * 10) / 10) };
    }
    if (method.kind === 'run') {
      const value = this.running(method.setup);
      return this.#shown(value, rangeFor(runRanges(method.setup.instrument, this.meter), value), Infinity);
    }
    if (method.kind === 'leads') return this.#shown(this.meter.leadOhms, this.meter.ohms[0]!, Infinity);
    const { value, range, fullScale } = this.measured(method.setup, check.assembly);
    if (method.setup.function === 'lamp') return { kind: 'finding', finding: value > 0.5 ? 'lit' : 'dark' };
    return this.#shown(value, range!, fullScale);
  }

  /** What an ideal copy of the meter shows on this unit, by the program's own circuit. */
  measured(setup: Setup, assembly: string, meter: Multimeter = this.meter): Measured {
    const places = setup.feed ? [[setup.feed.plus, setup.feed.minus] as const] : [];
    const network = this.#own(this.#subject.network(this.#build, assembly || 'closed'));
    const circuit = new Circuit(networkBetween(network, [[setup.red, setup.black], ...places]), this.celsius);
    const values = circuit.withEdits(this.hidden.flatMap(({ fault, severity }) => fault.edits(severity)));
    return measure(circuit, values, setup, meter);
  }

  /** Both leads of a meter, as they are in this shop. */
  leadOhms({ leadOhms }: Pick<Multimeter, 'leadOhms'>): number {
    return Math.max(0, leadOhms + this.#leadsOff);
  }

  /** The unit on a stand, as all instruments see it. */
  spun(stand: Parameters<Spin>[1], off: Off = {}): Run {
    const { spin } = this.#subject;
    if (!spin) throw new RangeError(`${this.#subject.name} never runs on a stand`);
    const own: Off = { ...this.off, ...off };
    return spin(this.#build, { ...stand, rpm: stand.rpm * (1 + (own.rpm ?? 0)) }, this.runningFaults, own);
  }

  /** What an instrument shows on the running unit; neither speed nor heat is ever quite what was asked. */
  running(setup: RunSetup): number {
    return this.ran(setup, { ...this.off, rpm: 0.02 * this.#bell(), celsius: this.#strewing.celsius * this.#bell() });
  }

  /** What an instrument shows while all of it is off by so much, by the program's own equations. */
  protected ran(setup: RunSetup, off: Off): number {
    const { shows } = this.#subject;
    if (!shows) throw new RangeError(`${this.#subject.name} never runs`);
    return shows(this.#build, setup, this.runningFaults, off);
  }

  /** What hides in it, as a running machine has it. */
  get runningFaults(): readonly RunningFault[] {
    return this.hidden.map(({ fault, severity }) => runningFault(fault, severity));
  }

  /** By how much of itself each of the unit's quantities is off, for running it. */
  get off(): Off {
    const { resistors, logs, running } = this.#strewing;
    const kinds = [...Object.keys(resistors), ...Object.keys(logs)].filter((name) => !name.endsWith(':'));
    return {
      ...Object.fromEntries(kinds.map((name) => [name, this.ohmsFactor([name]) - 1])),
      ...Object.fromEntries(
        Object.keys(running).map((name) => [name, Math.max(this.#swayOf('running', name), leastLeft - 1)]),
      ),
    };
  }

  /** As a check on the stand wants it; the speed is never quite what was asked. */
  #onStand(): Run {
    const wanted = usualRun(this.#subject).held;
    const hot = (usual: number) => usual + this.#strewing.celsius * this.#bell();
    const stand = {
      rpm: wanted.rpm! * (1 + 0.02 * this.#bell()),
      ...heldAt(wanted.volts!),
      celsius: { windings: hot(70), diodes: hot(70) },
    };
    return this.spun({ ...stand, field: 'bypassed' });
  }

  /** How many times its nominal value a resistance has that follows these spreads, on this unit. */
  protected ohmsFactor(spread: readonly string[] = []): number {
    const [least, most] = this.#strewing.within[spread[0] ?? ''] ?? [0, Infinity];
    const isWithin = (factor: number) => factor >= least && factor <= most;
    let [relative, logs] = [1, 0];
    for (const name of spread) {
      relative += this.#swayOf('resistors', name, (sway) => isWithin((relative + sway) * Math.exp(logs)));
      logs += this.#swayOf('logs', name, (sway) => isWithin(relative * Math.exp(logs + sway)));
    }
    return relative * Math.exp(logs);
  }

  /** The same for a junction's saturation current. */
  protected saturationFactor(spread: readonly string[] = [], ideality: number): number {
    const volts = spread.reduce((total, name) => total + this.#swayOf('junctions', name), 0);
    return Math.exp(-volts / (ideality * thermalVolts));
  }

  /** A bell between −1 and 1. */
  #bell(random = this.#random): number {
    return (random() + random() + random() - 1.5) / 1.5;
  }

  /**
   * The same sway each time for one uncertain quantity of this unit, whatever is read first. One that doesn't fit is drawn
   * again: put on the edge, six diodes would leak alike to the last digit.
   */
  #swayOf(
    kind: 'resistors' | 'logs' | 'junctions' | 'running',
    name: string,
    fits: (sway: number) => boolean = () => true,
  ): number {
    const table = this.#strewing[kind];
    const width = table[name] ?? table[name.replace(/:.*/, ':')] ?? 0;
    if (width === 0) return 0;
    const key = `${kind} ${name}`;
    let sway = this.#sway.get(key);
    if (sway === undefined) {
      const dice = this.#diceOf(key);
      do sway = this.#scale * width * this.#bell(dice);
      while (!fits(sway));
      this.#sway.set(key, sway);
    }
    return sway;
  }

  /** What by lot is this unit's own: the same whenever it is asked. */
  #diceOf(key: string): () => number {
    return seeded([...key].reduce((hash, letter) => Math.imul(hash, 31) + letter.charCodeAt(0), this.#seed));
  }

  /** The unit's own network: every element swayed. */
  #own({ resistors, junctions, ...rest }: Network): Network {
    return {
      ...rest,
      resistors: resistors.map((r) => ({ ...r, ohms: r.ohms * this.ohmsFactor(r.spread) })),
      junctions: junctions.map(({ law, ...j }) => {
        const saturationAmps = law.saturationAmps * this.saturationFactor(j.spread, law.ideality);
        return { ...j, law: { ...law, saturationAmps } };
      }),
    };
  }

  /** With the meter's own error: one gain for each range, counts anew each time. */
  #shown(value: number, range: Parameters<typeof gainSigma>[0], fullScale: number): Outcome {
    if (!this.#gains.has(range.fullScale)) this.#gains.set(range.fullScale, gainSigma(range) * 2 * this.#bell());
    const read = value * (1 + this.#gains.get(range.fullScale)!) + countSigma(range) * 2 * this.#bell();
    if (read > fullScale) return { kind: 'over-range' };
    return { kind: 'value', value: Math.max(0, Math.round(read / range.step) * range.step) };
  }

  #slip(check: Check, findings: readonly string[]): Outcome {
    if (findings.length) return { kind: 'finding', finding: findings[Math.floor(this.#random() * findings.length)]! };
    if (check.unit === 'millimetres') return { kind: 'value', value: 1 + 12 * this.#random() };
    if (check.method.kind === 'leads' || this.#random() < 0.5) return { kind: 'over-range' };
    const top = check.unit === 'volts' ? 2 : 100;
    return { kind: 'value', value: top * this.#random() };
  }
}

/** What a trace is taken at: as the first running check of its kind. */
function usualRun({ checks }: Subject): RunSetup {
  const found = checks.flatMap(({ method }) => (method.kind === 'run' ? [method.setup] : []))[0];
  if (!found) throw new RangeError('no check says how this runs');
  return found;
}
