import { driveWatts } from '@refectum/core/handbook';
import { type Feed, type Multimeter, multimeterById, type Setup } from '@refectum/core/instruments';
import { familyOf, type Fault, heldAt, type Machine, type Run, subjectOf } from '@refectum/core/machines';
import { normalFrom, seeded } from '@refectum/core/numeric';
import { type Hidden, HiddenUnit, type Measured } from '@refectum/core/practice';
import { FedStarter } from './fed-starter.ts';
import type { Scenario } from './scenario.ts';
import { strewing } from './strewing.ts';

/** Where the probes are and what else hands do. */
export interface Hands {
  readonly red?: string | undefined;
  readonly black?: string | undefined;
  /** The tips held against each other. */
  readonly together: boolean;
  /** The leads of the supply and the resistor in them, for a test under current. */
  readonly feed?: Feed | undefined;
  readonly assembly: string;
  /** The jumper past the regulator. */
  readonly jumper: boolean;
}

/** What an electronic load or a carbon pile does. */
export interface LoadSetting {
  readonly on: boolean;
  readonly mode: 'current' | 'voltage' | 'resistance';
  readonly amps: number;
  readonly volts: number;
  readonly ohms: number;
}

/** Between the tips: nothing yet, something that comes and goes, or contact since so many seconds. */
export type Contact = { readonly kind: 'open' | 'flickering' } | { readonly kind: 'held'; readonly seconds: number };

/** Seconds that a hand takes to the next point, and that a tip scratches before it sits [our estimate]. */
const liftSeconds = 0.6;
const scratchSeconds = 0.25;
/** How fast the stand's motor comes to speed. */
const runUpSeconds = 0.6;
const standing = 60;
/** So far from the wanted speed it is still on its way there. */
const onTheWay = 30;
/** The stand’s battery, nearly charged: some 5 A drive it to 14.2 V, what it gives costs its ohms alone. [from memory] */
const battery = { volts: 12.6, ohms: 0.02, overVolts: 0.44, overAmps: 0.3 } as const;
/** What it takes at first sight, A. */
const usualCharge = 5;
/** About so few amps it takes nothing. */
const leastCharge = 0.1;
const cableOhms = 0.002;
const warm = { windings: 60, diodes: 60 } as const;
const noLoadOhms = 1e4;
/** Until battery and load agree with what the unit gives; few are needed. */
const mostSpins = 8;
const agreeVolts = 0.02;
const agreeShare = 0.005;
const bearingNewtonMetres = 0.3;

const idle: Hands = { together: false, assembly: 'closed', jumper: false };
const noLoad: LoadSetting = { on: false, mode: 'current', amps: 0, volts: 13.5, ohms: 1 };

/**
 * A made-up unit on a bench, the hands that hold the probes, and all that the instruments are connected to. Time and
 * chance are handed in.
 */
export class SimulatedBench {
  readonly #clock: () => number;
  readonly #random: () => number;
  readonly normal: () => number;
  #scenario: Scenario;
  #machine: Machine;
  #unit!: HiddenUnit;
  /** A motor in the vise, fed from the bench battery. */
  #fed: FedStarter | undefined;
  #tag: number | undefined;
  #hands = idle;
  #movedAt = -Infinity;
  #wantedRpm = 0;
  #startRpm = 0;
  #turnedAt = 0;
  #load = noLoad;
  #command: number | undefined;
  /** Amps that the battery takes, as found last. */
  #charge = usualCharge;
  #ran: { readonly key: string; readonly run: Run } | undefined;

  constructor(scenario: Scenario, clock: () => number, random: () => number) {
    this.#clock = clock;
    this.#random = random;
    this.normal = normalFrom(random);
    this.#scenario = scenario;
    this.#machine = scenario.machine as Machine;
    this.#clamp();
  }

  get scenario(): Scenario {
    return this.#scenario;
  }
  get tag(): number | undefined {
    return this.#tag;
  }
  get hidden(): readonly Hidden[] {
    return this.#unit.hidden;
  }
  get hands(): Hands {
    return this.#hands;
  }
  get load(): LoadSetting {
    return this.#load;
  }
  get wantedRpm(): number {
    return this.#wantedRpm;
  }
  get meter(): Multimeter {
    return multimeterById(this.#scenario.meter);
  }

  /** Another scenario: another unit in the vise. */
  play(scenario: Scenario): void {
    this.#scenario = scenario;
    this.#tag = undefined;
    this.#machine = scenario.machine as Machine;
    this.#clamp();
  }

  /** The unit that the application works on is the one in the vise; the same tag is the same unit. */
  clamp(tag: number, machine: Machine): void {
    if (tag === this.#tag) return;
    this.#tag = tag;
    this.#machine = machine;
    this.#clamp();
  }

  move(hands: Hands): void {
    if (!this.#isRunning(hands.assembly)) this.#fed?.feed(false);
    this.#hands = hands;
    this.#movedAt = this.#clock();
  }

  turn(rpm: number): void {
    this.#startRpm = this.rpm;
    this.#turnedAt = this.#clock();
    this.#wantedRpm = rpm;
  }

  draw(load: LoadSetting): void {
    this.#load = load;
    this.#fed?.pile(load.on && load.mode === 'current' ? load.amps : 0);
  }

  get commanded(): number | undefined {
    return this.#command;
  }
  /** A commander's signal on the regulator: the share of the time that it is on. */
  command(duty: number | undefined): void {
    this.#command = duty;
  }

  /** Battery and command of a starter, or a supply that feeds whatever its clips hold. */
  feed(on: boolean): void {
    this.#fed?.feed(on && this.isClamped);
  }
  brake(newtonMetres: number): void {
    this.#fed?.brake(newtonMetres);
  }
  /** The motor in the vise, where there is one. */
  get fed(): FedStarter | undefined {
    return this.#fed;
  }

  get isClamped(): boolean {
    return this.#isRunning(this.#hands.assembly);
  }
  #isRunning(assembly: string): boolean {
    return familyOf(this.#machine).assemblies.some(({ id, running }) => id === assembly && running);
  }

  /** What a clamp round the unit's lead carries, direct and alternating. */
  get leadAmps(): { readonly mean: number; readonly ripple: number } {
    return this.run?.amps ?? { mean: this.#fed?.now.amps ?? 0, ripple: 0 };
  }

  /** Volts between the probes of a unit that runs or is clamped and connected; undefined where it is neither. */
  get clampedVolts(): number | undefined {
    const { red, black } = this.#hands;
    if (!this.isClamped) return undefined;
    if (!this.#fed) return red === 'output' && black === 'case' ? this.restingVolts : 0;
    const { volts, contactVolts } = this.#fed.now;
    if (red === 'main' && black === 'motor') return contactVolts;
    if (red === 'motor' && black === 'case') return volts - contactVolts;
    return (red === 'main' && black === 'case') || (red === 'battery+' && black === 'battery-') ? volts : 0;
  }

  get rpm(): number {
    if (this.#fed) return this.#fed.now.rpm;
    const seconds = this.#clock() - this.#turnedAt;
    return this.#wantedRpm + (this.#startRpm - this.#wantedRpm) * Math.exp(-seconds / runUpSeconds);
  }

  get contact(): Contact {
    const seconds = this.#clock() - this.#movedAt - liftSeconds;
    const { red, black, together } = this.#hands;
    if (seconds < 0 || (!together && !(red && black))) return { kind: 'open' };
    if (seconds < scratchSeconds && this.#random() < 0.5) return { kind: 'flickering' };
    return { kind: 'held', seconds };
  }

  /** Whether it turns fast enough to give anything. */
  get running(): boolean {
    return this.isClamped && this.rpm > standing;
  }

  /** What an ideal meter shows between the probes at rest. */
  atRest(use: Setup['function'], meter: Multimeter, supplied: boolean): Measured {
    const { red, black, feed, assembly } = this.#hands;
    const setup: Setup = { function: use, red: red!, black: black!, ...(feed && supplied ? { feed } : {}) };
    const withLeads = { ...meter, leadOhms: this.leadOhms(meter) };
    return this.#unit.measured(setup, this.isClamped ? 'closed' : assembly, withLeads);
  }

  /** Leads alone, both together. */
  leadOhms(meter: Multimeter): number {
    return this.#unit.leadOhms(meter);
  }

  /** The running unit, as all instruments see it; undefined when it stands still. */
  get run(): Run | undefined {
    if (!this.running || this.#fed) return undefined;
    // What was worked out for a speed holds for its neighbours: on the way to another one in coarse steps.
    const step = Math.abs(this.rpm - this.#wantedRpm) > onTheWay ? 200 : 20;
    const rpm = Math.max(20, Math.round(this.rpm / step) * step);
    const key = JSON.stringify([this.#tag, this.#scenario, rpm, this.#load, this.#command, this.#hands.jumper]);
    if (this.#ran?.key !== key) this.#ran = { key, run: this.#spin(rpm) };
    return this.#ran.run;
  }

  /** Volts between output post and case when nothing turns: the battery's, once it is connected. */
  get restingVolts(): number {
    return this.isClamped ? (battery.volts * this.#machine.ratedVolts) / 12 : 0;
  }

  get newtonMetres(): number {
    const { run } = this;
    if (this.#fed) return this.#fed.now.newtonMetres;
    if (!run) return 0;
    const watts = driveWatts(run.volts.mean, Math.max(0, run.amps.mean));
    return bearingNewtonMetres + watts / ((2 * Math.PI * run.rpm) / 60);
  }

  #clamp(): void {
    const subject = subjectOf(this.#machine);
    const random = seeded(this.#scenario.seed + 7919 * (this.#tag ?? 0));
    const { faults, units } = this.#scenario;
    const told = units?.find(({ tag }) => tag === this.#tag)?.faults ?? faults;
    const hidden =
      told?.flatMap(({ fault, severity }) => {
        const found = subject.faults.find(({ id }) => id === fault);
        return found ? [{ fault: found, severity }] : [];
      }) ?? drawn(random, subject.faults);
    this.#unit = new HiddenUnit(random, subject, this.meter, hidden, strewing);
    const { drives } = familyOf(this.#machine);
    this.#fed = drives && new FedStarter(this.#machine, drives, this.#unit, this.#clock);
    this.#hands = idle;
    this.#wantedRpm = 0;
    this.#startRpm = 0;
    this.#load = noLoad;
    this.#charge = usualCharge;
    this.#ran = undefined;
  }

  #spin(rpm: number): Run {
    const sets = this.#machine.ratedVolts / 12;
    const field = this.#hands.jumper ? 'bypassed' : 'regulated';
    const { on, mode, amps, volts, ohms } = this.#load;
    const shared = { rpm, celsius: warm, field, command: this.#command } as const;
    // Held at so many volts, its sense leads at the post, the load takes whatever comes.
    if (on && mode === 'voltage') return this.#unit.spun({ ...shared, ...heldAt(volts), loadOhms: noLoadOhms });
    const drawn = on && mode === 'current' ? amps : 0;
    let loadOhms = drawn > 0 ? this.restingVolts / drawn : on && mode === 'resistance' ? ohms : noLoadOhms;
    for (let n = 1; ; n++) {
      const near = batteryNear(this.#charge);
      const supply = { batteryVolts: near.volts * sets, batteryOhms: near.ohms * sets, cableOhms };
      const run = this.#unit.spun({ ...shared, ...supply, loadOhms });
      const taken = run.amps.mean - run.volts.mean / loadOhms;
      const wantedOhms = drawn > 0 ? Math.max(run.volts.mean, 1) / drawn : loadOhms;
      const isNear = Math.abs(near.volts + near.ohms * taken - batteryVolts(taken)) < agreeVolts;
      if (n === mostSpins || (isNear && Math.abs(wantedOhms / loadOhms - 1) < agreeShare)) return run;
      this.#charge = nextCharge(this.#charge, taken);
      loadOhms = wantedOhms;
    }
  }
}

/**
 * Volts of a 12 V battery that takes so many amps: over those at rest they grow with the logarithm of the charge, as
 * those of an electrode that gasses do (Tafel).
 */
const batteryVolts = (amps: number): number =>
  battery.volts + battery.ohms * amps + battery.overVolts * Math.asinh(Math.max(0, amps) / battery.overAmps);

/** The straight line that touches this curve at so many amps. */
function batteryNear(amps: number): { readonly volts: number; readonly ohms: number } {
  const ohms = battery.ohms + (amps > 0 ? battery.overVolts / Math.hypot(amps, battery.overAmps) : 0);
  return { volts: batteryVolts(amps) - ohms * amps, ohms };
}

/** What to try next where a battery thought to take so much takes so much by the line there. */
function nextCharge(thought: number, taken: number): number {
  if (taken > 0) return thought > 0 ? taken : Math.min(taken, usualCharge);
  return thought > leastCharge ? thought / 8 : taken;
}

/** By lot: often nothing, else one fault, as heavy as it may be. */
function drawn(random: () => number, faults: readonly Fault[]): Hidden[] {
  if (random() < 0.25) return [];
  let left = random() * faults.reduce((sum, { weight }) => sum + weight, 0);
  const fault = faults.find(({ weight }) => (left -= weight) <= 0) ?? faults[0]!;
  const { grades } = fault.severity;
  return [{ fault, severity: grades[Math.floor(random() * grades.length)]! }];
}
