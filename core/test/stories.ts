import { type Blame } from '../src/blame/index.ts';
import { type TapeReading, VehicleSession } from '../src/assess/index.ts';
import type { Teller } from '../src/belief/index.ts';
import { type Check, findingsOf, type Outcome } from '../src/checks/index.ts';
import { Circuit, type Edit, type Network } from '../src/circuit/index.ts';
import { countSigma, measure, multimeterById } from '../src/instruments/index.ts';
import { clawPoleGeneric, type Fault } from '../src/machines/index.ts';
import { type Scene, starterAtWork, vehicleGeneric, vehicleNetwork } from '../src/vehicle/index.ts';
import { normalFrom, seeded } from '../src/numeric/index.ts';

/** Made-up vehicles with hidden faults, told as stories: how often is the unit blamed or cleared wrongly? */

/** How sound vehicles differ: figures of this study alone, which the belief does not read. */
const strewn = {
  resistors: {
    battery: [0.6, 1.5],
    'charge-cable': [0.5, 2],
    'ground-path': [0.5, 2.2],
    loads: [0.7, 1.6],
    drain: [0.5, 2],
    'output-limit': [0.88, 1.2],
    starter: [0.8, 1.25],
    'starter-pull': [0.7, 1.5],
  } as Readonly<Record<string, readonly [number, number]>>,
  emfs: { cells: 0.1, regulated: 0.3 } as Readonly<Record<string, number>>,
  /** Readings mistyped or misread. */
  slips: 0.02,
};

const meter = multimeterById('workshop');
const unit = clawPoleGeneric(12, 90);
const vehicle = vehicleGeneric(12, 90);
const starter = starterAtWork(vehicle, unit);

/** All that a thorough technician takes down before the unit comes off. */
export const thorough: readonly string[] = [
  'rested-volts',
  'state-of-charge',
  'key-in-start',
  'cranking-volts',
  'cranking-amps',
  'battery-idle',
  'battery-raised',
  'post-raised',
  'drop-charge',
  'drop-ground',
  'battery-loaded',
  'output-amps',
  'revs',
  'ripple',
  'noise',
  'drain',
  'drain-cable-off',
  'plug-ignition',
  'plug-sense',
  'lamp',
  'belt',
];

export interface Story {
  readonly complaint: string;
  /** Ids of what is truly wrong. */
  readonly faults: readonly string[];
  readonly unitFaulty: boolean;
  readonly blame: Blame;
}

export class Stories {
  readonly #random: () => number;
  readonly #normal: () => number;
  readonly #sessions = new Map<string, VehicleSession>();

  constructor(seed: number) {
    this.#random = seeded(seed);
    this.#normal = normalFrom(this.#random);
  }

  /** One vehicle with what its prior gives it, told in full by `teller`. */
  tell(complaint: string, teller: Teller, checks: readonly string[] = thorough): Story {
    const session = this.#sessionFor(complaint);
    const { opened } = session;
    let left = this.#random();
    const particle = opened.particles.find((p) => (left -= p.prior) <= 0) ?? opened.particles[0]!;
    const faults = particle.faults.map((f, slot) => ({
      fault: opened.faults[f]!,
      severity: particle.severities[slot]!,
    }));
    const scenes = this.#vehicleWith(faults);
    const readings = checks.map((id): TapeReading => {
      const check = opened.checks.find((c) => c.id === id)!;
      return { id, check: id, outcome: this.#take(check, faults, scenes), meter: meter.id, celsius: 20, told: teller };
    });
    const situation = { readings, assembly: 'parked', meter: meter.id, celsius: 20 };
    return {
      complaint,
      faults: faults.map(({ fault }) => fault.id),
      unitFaulty: faults.some(({ fault }) => fault.part === 'unit'),
      // Everything has been asked: nothing is left that would pay.
      blame: session.blame(situation, { stop: 'told in full', next: [], runFirst: false, apart: [], hidden: [] }),
    };
  }

  #sessionFor(complaint: string): VehicleSession {
    let session = this.#sessions.get(complaint);
    if (!session) this.#sessions.set(complaint, (session = new VehicleSession(vehicle, unit, complaint, [meter])));
    return session;
  }

  /** The vehicle's own values, the same in every scene; faults put in. */
  #vehicleWith(faults: readonly { fault: Fault; severity: number }[]) {
    const scale = new Map(
      Object.entries(strewn.resistors).map(([name, [low, high]]) => [name, low + (high - low) * this.#random()]),
    );
    const shift = new Map(Object.entries(strewn.emfs).map(([name, sigma]) => [name, sigma * this.#normal()]));
    const edits: Edit[] = faults.flatMap(({ fault, severity }) => fault.edits(severity));
    return (scene: Scene): { circuit: Circuit; edits: Edit[] } => {
      const network = vehicleNetwork(vehicle, scene, starter);
      const own: Network = {
        ...network,
        resistors: network.resistors.map((r) => ({ ...r, ohms: r.ohms * (scale.get(r.name) ?? 1) })),
        emfs: network.emfs?.map((e) => ({ ...e, volts: e.volts + (shift.get(e.name) ?? 0) })),
      };
      return { circuit: new Circuit(own, 20), edits };
    };
  }

  #take(
    check: Check,
    faults: readonly { fault: Fault; severity: number }[],
    scenes: (scene: Scene) => { circuit: Circuit; edits: Edit[] },
  ): Outcome {
    const { method } = check;
    const slipped = this.#random() < strewn.slips;
    if (method.kind !== 'meter') {
      const findings = findingsOf(check);
      const present = faults.map(({ fault, severity }) => ({ species: fault.species, place: '', severity }));
      const chances = method.kind === 'finding' ? method.chances(present) : [];
      let left = this.#random();
      const at = slipped ? Math.floor(this.#random() * findings.length) : chances.findIndex((p) => (left -= p) <= 0);
      return { kind: 'finding', finding: findings[Math.max(at, 0)]!.id };
    }
    const { circuit, edits } = scenes(check.assembly as Scene);
    const { value, range } = measure(circuit, circuit.withEdits(edits), method.setup, meter);
    if (slipped) return { kind: 'value', value: value * this.#random() };
    // What wobbles while one reads: volts by some hundredths, amps by some per cent.
    const wobble = check.unit === 'volts' ? 0.03 : 0.03 * Math.abs(value) + 0.003;
    return { kind: 'value', value: value + (wobble + countSigma(range!)) * this.#normal() };
  }
}

/** Wilson's 95 % interval for a share [Wilson 1927]. */
export function wilson(hits: number, of: number): { share: number; low: number; high: number } {
  const z = 1.96;
  const share = hits / of;
  const middle = (share + (z * z) / (2 * of)) / (1 + (z * z) / of);
  const reach = (z / (1 + (z * z) / of)) * Math.sqrt((share * (1 - share)) / of + (z * z) / (4 * of * of));
  return { share, low: Math.max(middle - reach, 0), high: Math.min(middle + reach, 1) };
}
