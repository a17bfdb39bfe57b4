import { type MotorRun, motorRun, motorRunUp, type MotorSource, type RunUp } from '@refectum/core/curves';
import { type Drives, type Fed, type Machine } from '@refectum/core/machines';
import type { HiddenUnit } from '@refectum/core/practice';

/** How long a run-up is reckoned, and in how many samples a second; then it runs evenly. */
const runUpSeconds = 1.5;
const runUpSamples = 2000;
/** Without rest the bench lets go by itself [common practice, no source: 10 s]. */
const mostSeconds = 12;
/** More than this at the brake is an arm that holds it. */
const heldFrom = 400;
/** What the solenoid's windings draw alone, A for each volt of the battery. */
const coilSiemens = 0.75;
/** Chatter: so often a second it takes hold and lets go. */
const chatterHertz = 8;

/** What instruments around a starter see. */
export interface Seen {
  readonly amps: number;
  /** Main terminal against case. */
  readonly volts: number;
  /** Main terminal against motor terminal. */
  readonly contactVolts: number;
  readonly rpm: number;
  readonly newtonMetres: number;
}

/** A made-up starter in the vise, its battery and its brake. Time is handed in. */
export class FedStarter {
  readonly #clock: () => number;
  readonly #fed: Fed;
  readonly #drives: Drives<Machine>;
  readonly #machine: Machine;
  readonly #species: ReadonlySet<string>;
  #since: number | undefined;
  #newtonMetres = 0;
  /** What a pile draws from the battery beside. */
  #pileAmps = 0;
  #runUp: RunUp | undefined;

  constructor(machine: Machine, drives: Drives<Machine>, unit: HiddenUnit, clock: () => number) {
    this.#clock = clock;
    this.#machine = machine;
    this.#drives = drives;
    this.#fed = drives.fed(machine, unit.runningFaults, 25, unit.off);
    this.#species = new Set(unit.runningFaults.map(({ species }) => species));
  }

  /** Command and battery on, or off. */
  feed(on: boolean): void {
    const was = this.#since !== undefined;
    if (on === was) return;
    this.#since = on ? this.#clock() : undefined;
    this.#runUp = undefined;
  }

  brake(newtonMetres: number): void {
    this.#newtonMetres = newtonMetres;
    this.#runUp = undefined;
  }
  pile(amps: number): void {
    this.#pileAmps = amps;
  }
  get braked(): number {
    return this.#newtonMetres;
  }

  /** The battery, less what the pile takes from its volts. */
  get #source(): MotorSource {
    const { volts, ohms } = this.#fed.source;
    return { volts: volts - this.#pileAmps * ohms, ohms };
  }

  get isFed(): boolean {
    if (this.#since !== undefined && this.#clock() - this.#since > mostSeconds) this.feed(false);
    return this.#since !== undefined;
  }

  get now(): Seen {
    const { contactOhms } = this.#fed;
    const source = this.#source;
    const rested: Seen = { amps: 0, volts: source.volts, contactVolts: source.volts, rpm: 0, newtonMetres: 0 };
    if (!this.isFed) return rested;
    const seconds = this.#clock() - this.#since!;
    const coils = source.volts * coilSiemens;
    const chatters = this.#species.has('hold-in-open') && Math.floor(seconds * 2 * chatterHertz) % 2 === 1;
    if (this.#species.has('pull-in-open') || chatters)
      return { ...rested, amps: coils, volts: source.volts - coils * source.ohms };
    const even = this.#even;
    const up = this.#up(seconds);
    // On the way the torque of the brake is all that the pinion gives.
    const rpm = up?.rpm ?? even.rpm;
    const amps = up?.amps ?? even.amps;
    return {
      amps,
      volts: source.volts - amps * source.ohms,
      contactVolts: amps * contactOhms,
      rpm,
      newtonMetres: even.newtonMetres,
    };
  }

  /** The clamp's trace from the moment it is fed, and the volts at its terminal. */
  trace(seconds: number, samples: number): { readonly amps: Float64Array; readonly volts: Float64Array } {
    const { source } = this.#fed;
    if (!this.isFed) return { amps: new Float64Array(samples), volts: new Float64Array(samples).fill(source.volts) };
    const { amps } = this.#reckoned(seconds, samples);
    return { amps, volts: amps.map((one) => source.volts - one * source.ohms) };
  }

  get #load(): 'held' | { newtonMetres: number } {
    return this.#newtonMetres >= heldFrom ? 'held' : { newtonMetres: this.#newtonMetres };
  }
  get #even(): MotorRun {
    return motorRun(this.#fed.motor, this.#source, this.#load);
  }

  /** While it gathers speed. */
  #up(seconds: number): { readonly amps: number; readonly rpm: number } | undefined {
    if (seconds >= runUpSeconds || this.#load === 'held') return undefined;
    this.#runUp ??= this.#reckoned(runUpSeconds, runUpSamples * runUpSeconds);
    const at = Math.min(Math.floor(seconds * runUpSamples), this.#runUp.amps.length - 1);
    return { amps: this.#runUp.amps[at]!, rpm: this.#runUp.rpm[at]! };
  }

  #reckoned(seconds: number, samples: number): RunUp {
    const newtonMetres = this.#load === 'held' ? 1e4 : this.#newtonMetres;
    const { motor, source } = this.#fed;
    return motorRunUp(motor, source, this.#drives.dynamics(this.#machine), newtonMetres, seconds, samples);
  }
}
