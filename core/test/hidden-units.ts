import { type Session, type TapeReading } from '../src/assess/index.ts';
import { setupMinutes } from '../src/advice/index.ts';
import type { Belief, Case } from '../src/belief/index.ts';
import { type Check, findingsOf, type Outcome } from '../src/checks/index.ts';
import { Circuit, type Network, networkBetween } from '../src/circuit/index.ts';
import { countSigma, gainSigma, measure, type Multimeter, type Setup, type Shown } from '../src/instruments/index.ts';
import type { Build, Fault } from '../src/machines/index.ts';
import { seeded } from './dice.ts';
import { showing, slips, soundWithin, spreads, unseen } from './spreads.ts';

/** Made-up units with hidden faults on the static bench, and what becomes of them: by every check, or by the advice. */

/** A share of healthy units and of those with one fault; the rest has two. */
const healthy = 0.3;
const single = 0.55;
/** kT/q at 25 °C, V. */
const thermalVolts = 0.02569;
/** So many readings and the advice should have come to an end. */
const mostReadings = 160;

export interface Hidden {
  readonly fault: Fault;
  readonly severity: number;
}

export type Measured = Pick<Shown, 'value' | 'range' | 'fullScale'>;

export class HiddenUnit {
  readonly hidden: readonly Hidden[];
  readonly #random: () => number;
  readonly #opened: Case;
  readonly #build: Build;
  protected readonly meter: Multimeter;
  protected readonly celsius: number;
  readonly #seed: number;
  readonly #sway = new Map<string, number>();
  readonly #gains = new Map<number, number>();
  readonly #scale: number;

  /** `scale`: how many times wider than stated the units are strewn. */
  constructor(random: () => number, opened: Case, meter: Multimeter, hidden: readonly Hidden[], scale = 1) {
    this.#random = random;
    this.#opened = opened;
    this.#scale = scale;
    this.hidden = hidden;
    this.#seed = Math.floor(random() * 2 ** 31);
    let left = random() * opened.builds.reduce((sum, build) => sum + build.prior, 0);
    this.#build = opened.builds.find((build) => (left -= build.prior) <= 0) ?? opened.builds[0]!;
    this.celsius = 20 + spreads.celsius * this.#bell();
    this.meter = { ...meter, leadOhms: Math.max(0, meter.leadOhms + spreads.leads * this.#bell()) };
  }

  /** What the meter shows, a slip now and then included. */
  read(check: Check): Outcome {
    const findings = findingsOf(check);
    if (this.#random() < slips)
      return this.#slip(
        check,
        findings.map(({ id }) => id),
      );
    const { method } = check;
    const present = this.hidden.map(({ fault: { species, place }, severity }) => ({ species, place, severity }));
    if (method.kind === 'finding') {
      const chances = method.chances(present);
      let left = this.#random();
      const at = chances.findIndex((chance) => (left -= chance) < 0);
      return { kind: 'finding', finding: findings[Math.max(at, 0)]!.id };
    }
    if (method.kind === 'length') {
      const { mean, sigma } = method.expected(present);
      return { kind: 'value', value: Math.max(0.1, Math.round((mean + 2 * sigma * this.#bell()) * 10) / 10) };
    }
    if (method.kind === 'run') throw new RangeError(`${check.id}: these units only rest`);
    if (method.kind === 'leads') return this.#shown(this.meter.leadOhms, this.meter.ohms[0]!, Infinity);
    const { value, range, fullScale } = this.measured(check, method.setup);
    if (method.setup.function === 'lamp') return { kind: 'finding', finding: value > 0.5 ? 'lit' : 'dark' };
    return this.#shown(value, range!, fullScale);
  }

  /** What an ideal copy of the meter shows on this unit, by the program's own circuit. */
  protected measured(check: Check, setup: Setup): Measured {
    const places = setup.feed ? [[setup.feed.plus, setup.feed.minus] as const] : [];
    const network = this.#own(this.#opened.subject.network(this.#build, check.assembly || 'closed'));
    const circuit = new Circuit(networkBetween(network, [[setup.red, setup.black], ...places]), this.celsius);
    const values = circuit.withEdits(this.hidden.flatMap(({ fault, severity }) => fault.edits(severity)));
    return measure(circuit, values, setup, this.meter);
  }

  /** How many times its nominal value a resistance has that follows these spreads, on this unit. */
  protected ohmsFactor(spread: readonly string[] = []): number {
    const sum = (kind: 'resistors' | 'logs') => spread.reduce((total, name) => total + this.#swayOf(kind, name), 0);
    const [least, most] = soundWithin[spread[0] ?? ''] ?? [0, Infinity];
    return Math.min(Math.max(least, (1 + sum('resistors')) * Math.exp(sum('logs'))), most);
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

  /** The same sway each time for one uncertain quantity of this unit, whatever is read first. */
  #swayOf(kind: 'resistors' | 'logs' | 'junctions', name: string): number {
    const table: Readonly<Record<string, number>> = spreads[kind];
    const width = table[name] ?? table[name.replace(/:.*/, ':')] ?? 0;
    if (width === 0) return 0;
    const key = `${kind} ${name}`;
    if (!this.#sway.has(key)) {
      const own = seeded([...key].reduce((hash, letter) => Math.imul(hash, 31) + letter.charCodeAt(0), this.#seed));
      this.#sway.set(key, this.#scale * width * this.#bell(own));
    }
    return this.#sway.get(key)!;
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

/** From slight to bad. A fault with grades needs its range among the study's own figures. */
export function severitiesOf({ species, severity: { grades } }: Fault): readonly [number, number] {
  const range = showing[species] ?? (grades.length === 1 ? ([grades[0]!, grades[0]!] as const) : undefined);
  if (!range) throw new Error(`the study doesn’t say how bad “${species}” may be`);
  return range;
}

/** Nothing, one fault or two on different parts, as they are met; severities strewn over all grades. */
export function hide(random: () => number, { faults }: Case): Hidden[] {
  const can = faults.filter(({ species }) => !unseen.includes(species));
  const pick = (from: readonly Fault[]): Hidden => {
    let left = random() * from.reduce((sum, fault) => sum + fault.weight, 0);
    const fault = from.find(({ weight }) => (left -= weight) <= 0) ?? from[0]!;
    const [low, high] = severitiesOf(fault);
    return { fault, severity: low * (high / low) ** random() };
  };
  const roll = random();
  if (roll < healthy) return [];
  const first = pick(can);
  if (roll < healthy + single) return [first];
  return [first, pick(can.filter(({ part }) => part !== first.fault.part))];
}

/** What a study keeps of one unit. */
export interface Told {
  readonly hidden: readonly string[];
  readonly severities: readonly number[];
  readonly minutes: number;
  readonly readings: number;
  /** Sets as one text: what is truly wrong, what is likeliest believed, and how surely. */
  readonly parts: { readonly truth: string; readonly told: string; readonly chance: number };
  readonly items: { readonly truth: string; readonly told: string; readonly chance: number };
}

export type Policy = 'every check' | 'the advice';

/** Takes a unit through the bench by a policy. A reading that fits nothing is taken once more, as the program asks. */
export function bench(session: Session, unit: HiddenUnit, meter: Multimeter, policy: Policy): Told {
  const { opened } = session;
  const tape: TapeReading[] = [];
  const again = new Set<string>();
  let assembly = 'closed';
  let minutes = 0;
  const take = (check: Check): void => {
    minutes += check.minutes + setupMinutes(opened, assembly, check.assembly);
    assembly = check.assembly || assembly;
    tape.push({ id: String(tape.length), check: check.id, outcome: unit.read(check), meter: meter.id, celsius: 20 });
  };
  // Nobody solders twice: all that is done closed comes first, then what is done opened.
  const running = opened.subject.assemblies.filter((state) => state.running).map(({ id }) => id);
  const atRest = opened.checks.filter((check) => !running.includes(check.assembly));
  const inOrder = atRest.sort(
    (a, b) => setupMinutes(opened, 'closed', a.assembly) - setupMinutes(opened, 'closed', b.assembly),
  );
  const situation = () => ({ readings: tape, assembly, meter: meter.id, celsius: 20 });
  const next = (): Check | undefined => {
    const doubted = session.diagnose(situation()).readings.find(({ check, repeat }) => repeat && !again.has(check));
    if (doubted) {
      again.add(doubted.check);
      return opened.checks.find(({ id }) => id === doubted.check);
    }
    if (policy === 'every check') return inOrder.find(({ id }) => !tape.some((reading) => reading.check === id));
    const outlook = session.outlook(situation());
    return outlook.stop ? undefined : opened.checks.find(({ id }) => id === outlook.next[0]?.check);
  };
  for (let check = next(); check; check = next()) {
    take(check);
    if (tape.length > mostReadings) throw new Error(`no end after ${tape.length} readings`);
  }
  return {
    hidden: unit.hidden.map(({ fault }) => fault.id),
    severities: unit.hidden.map(({ severity }) => severity),
    minutes,
    readings: tape.length,
    ...judged(opened, session.beliefAfter(tape), unit.hidden),
  };
}

function judged(opened: Case, belief: Belief, hidden: readonly Hidden[]): Pick<Told, 'parts' | 'items'> {
  const itemOf = new Map(opened.subject.parts.map(({ id, item }) => [id, item]));
  const setOf = (faults: readonly Fault[], name: (part: string) => string): string =>
    [...new Set(faults.filter(({ species }) => !unseen.includes(species)).map(({ part }) => name(part)))]
      .sort()
      .join(' + ') || 'nothing';
  const likeliest = (name: (part: string) => string): { told: string; chance: number } => {
    const chances = new Map<string, number>();
    for (const weights of belief.weights)
      opened.particles.forEach(({ faults }, p) => {
        if (weights[p]! === 0) return;
        const set = setOf(
          faults.map((f) => opened.faults[f]!),
          name,
        );
        chances.set(set, (chances.get(set) ?? 0) + weights[p]!);
      });
    const [told, chance] = [...chances].reduce((best, one) => (one[1] > best[1] ? one : best));
    return { told, chance };
  };
  const truly = hidden.map(({ fault }) => fault);
  const part = (id: string): string => id;
  const item = (id: string): string => itemOf.get(id)!;
  return {
    parts: { truth: setOf(truly, part), ...likeliest(part) },
    items: { truth: setOf(truly, item), ...likeliest(item) },
  };
}
