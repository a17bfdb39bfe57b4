import { driveWatts } from '@refectum/core/handbook';
import { type Multimeter, multimeterById, type Setup } from '@refectum/core/instruments';
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
  /** The leads of the supply, for a test under current. */
  readonly feed?: { readonly plus: string; readonly minus: string } | undefined;
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
/** The stand’s battery behind its leads, nearly charged: it takes little more. [from memory] */
const battery = { volts: 12.6, ohms: 0.1 } as const;
const cableOhms = 0.002;
const warm = { windings: 60, diodes: 60 } as const;
const noLoadOhms = 1e4;
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
    this.#ran = undefined;
  }

  #spin(rpm: number): Run {
    const sets = this.#machine.ratedVolts / 12;
    const field = this.#hands.jumper ? 'bypassed' : 'regulated';
    const { on, mode, amps, volts, ohms } = this.#load;
    const supply = { batteryVolts: battery.volts * sets, batteryOhms: battery.ohms * sets, cableOhms };
    const spin = (loadOhms: number, held = supply): Run =>
      this.#unit.spun({ rpm, ...held, loadOhms, celsius: warm, field, command: this.#command });
    if (!on) return spin(noLoadOhms);
    if (mode === 'resistance') return spin(ohms);
    // Held at so many volts, its sense leads at the post, the load takes whatever comes.
    if (mode === 'voltage') return spin(noLoadOhms, heldAt(volts));
    let run = spin(amps > 0 ? this.restingVolts / amps : noLoadOhms);
    for (let n = 0; n < 2 && amps > 0; n++) run = spin(Math.max(run.volts.mean, 1) / amps);
    return run;
  }
}

/** By lot: often nothing, else one fault, as heavy as it may be. */
function drawn(random: () => number, faults: readonly Fault[]): Hidden[] {
  if (random() < 0.25) return [];
  let left = random() * faults.reduce((sum, { weight }) => sum + weight, 0);
  const fault = faults.find(({ weight }) => (left -= weight) <= 0) ?? faults[0]!;
  const { grades } = fault.severity;
  return [{ fault, severity: grades[Math.floor(random() * grades.length)]! }];
}
