/**
 * Currents in a rotor's solid poles: whatever doesn't turn with it meets less than the coils' synchronous inductance.
 * Of a whole coil: its peak EMF and synchronous inductance at full turns.
 */
export interface Damping {
  readonly emfVolts: number;
  readonly henries: number;
  /** Subtransient over synchronous inductance. */
  readonly share: number;
  /** How long the poles' currents last. */
  readonly seconds: number;
}

/** A flux that induces less is none, V. */
const leastVolts = 5e-3;

interface TurningCoil {
  readonly henries: number;
  readonly lagRadians: number;
}

/**
 * The flux behind the subtransient inductance, in the rotor's frame: τ·dψ″/dt = ψf + (L − L″)·i − ψ″ for its direct and
 * its quadrature axis (one damper winding an axis, alike: round poles), i the coils' amperes seen from the rotor. Stepped
 * over a period of so many equal steps.
 */
export class Damper {
  /** Direct and quadrature, Wb. */
  readonly webers = new Float64Array(2);
  /** Of each coil, over the whole one's: inductance grows with their square. */
  readonly #turns: Float64Array;
  readonly #damping: Damping;
  readonly #steps: number;
  readonly #radiansPerSecond: number;
  readonly #passed: number;
  /** Sine and cosine of each coil's angle at each step. */
  readonly #sine: Float64Array;
  readonly #cosine: Float64Array;
  /** How fast the flux changes, V; and what that came to over the period so far, Wb. */
  readonly #rate = new Float64Array(2);
  readonly #drift = new Float64Array(2);

  constructor(coils: readonly TurningCoil[], damping: Damping, steps: number, stepSeconds: number) {
    const angle = (at: number) => (2 * Math.PI * Math.floor(at / coils.length)) / steps;
    const places = { length: steps * coils.length };
    const lag = (at: number) => coils[at % coils.length]!.lagRadians;
    this.#turns = Float64Array.from(coils, ({ henries }) => Math.sqrt(henries / damping.henries));
    this.#damping = damping;
    this.#steps = steps;
    this.#radiansPerSecond = (2 * Math.PI) / (steps * stepSeconds);
    this.#passed = 1 - Math.exp(-stepSeconds / damping.seconds);
    this.#sine = Float64Array.from(places, (_, at) => Math.sin(angle(at) - lag(at)));
    this.#cosine = Float64Array.from(places, (_, at) => Math.cos(angle(at) - lag(at)));
    this.webers[0] = this.#fieldWebers;
  }

  get #leastWebers(): number {
    return leastVolts / this.#radiansPerSecond;
  }

  get #fieldWebers(): number {
    return this.#damping.emfVolts / this.#radiansPerSecond;
  }

  /** From a step to the next, the coils' amperes at its beginning given. */
  step(from: number, coilAmps: Float64Array): void {
    const { henries, share, seconds } = this.#damping;
    const first = from * coilAmps.length;
    let [direct, quadrature] = [0, 0];
    for (let c = 0; c < coilAmps.length; c++) {
      const amps = this.#turns[c]! * coilAmps[c]!;
      direct += amps * this.#sine[first + c]!;
      quadrature += amps * this.#cosine[first + c]!;
    }
    const slow = (2 / 3) * (1 - share) * henries;
    this.#follow(0, this.#fieldWebers + slow * direct, seconds);
    this.#follow(1, slow * quadrature, seconds);
  }

  #follow(axis: 0 | 1, bound: number, seconds: number): void {
    const off = bound - this.webers[axis]!;
    this.webers[axis]! += this.#passed * off;
    this.#rate[axis] = off / seconds;
    this.#drift[axis]! += off;
  }

  /** EMF of a coil at a step. */
  volts(c: number, step: number): number {
    const at = step * this.#turns.length + c;
    const [sine, cosine] = [this.#sine[at]!, this.#cosine[at]!];
    const turning = this.#radiansPerSecond * (this.webers[0]! * cosine - this.webers[1]! * sine);
    return this.#turns[c]! * (turning + this.#rate[0]! * sine + this.#rate[1]! * cosine);
  }

  /**
   * At the end of a period: moves the flux to where it drifts, for in the steady state it comes back to itself; whether
   * it has, within a share of the field's.
   */
  settle(settledShare: number): boolean {
    const [direct, quadrature] = this.#drift.map((sum) => sum / this.#steps) as unknown as [number, number];
    this.webers[0]! += this.#damping.share * direct;
    this.webers[1]! += this.#damping.share * quadrature;
    this.#drift.fill(0);
    return Math.hypot(direct, quadrature) <= Math.max(settledShare * this.#fieldWebers, this.#leastWebers);
  }
}
