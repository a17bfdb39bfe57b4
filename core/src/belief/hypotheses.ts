import type { Edit } from '../circuit/index.ts';
import type { Complaint, Fault, Severity, Subject } from '../machines/index.ts';

/** One hypothesis at one severity of each of its faults: what is predicted and weighed. */
export interface Particle {
  /** Indices into the list of faults, ascending. */
  readonly faults: readonly number[];
  readonly severities: readonly number[];
  /** For each fault a whole number that names fault and severity cell together. */
  readonly codes: readonly number[];
  readonly edits: readonly (readonly Edit[])[];
  /** Standard deviation of ln(severity) within its cell. */
  readonly cellSigmas: readonly number[];
  /** For each fault, whether what lies above its cell is no fault any more. */
  readonly soundAbove: readonly boolean[];
  /** Before any reading; none for more than two faults, which are weighed once the others are found. */
  readonly prior: number;
}

const codesPerFault = 16;
/** Of the chance that something is wrong, the share that one fault alone has [from memory: 55 against 15 in 100]. */
const singleShare = 0.79;

interface Cell {
  readonly severity: number;
  readonly sigma: number;
  readonly code: number;
  readonly soundAbove: boolean;
}

/** One cell around each grade: it reaches half-way to its neighbours in ln(severity). */
function cells({ grades, soundAbove }: Severity, firstCode: number): Cell[] {
  if (grades.length === 1) return [{ severity: grades[0]!, sigma: 0, code: firstCode, soundAbove: false }];
  const logs = grades.map(Math.log);
  const between = logs.slice(1).map((log, i) => (log + logs[i]!) / 2);
  const edges = [2 * logs[0]! - between[0]!, ...between, 2 * logs.at(-1)! - between.at(-1)!];
  return grades.map((_, i) => {
    const [low, high] = [edges[i]!, edges[i + 1]!];
    return {
      severity: Math.exp((low + high) / 2),
      sigma: Math.abs(high - low) / Math.sqrt(12),
      code: firstCode + i,
      soundAbove: soundAbove === true && i === grades.length - 1,
    };
  });
}

/** Nothing wrong, every fault at every grade, every pair of faults on different parts. */
export function particlesOf({ faults, chain }: Subject, complaint: Complaint): Particle[] {
  const weight = faults.map((fault) => fault.weight * (complaint.factors[fault.species] ?? 1));
  const graded = faults.map((fault, i) => cells(fault.severity, i * codesPerFault));
  const pairs = faults.flatMap((a, i) =>
    faults.slice(i + 1).flatMap((b, k) => {
      const j = i + 1 + k;
      return a.part === b.part ? [] : [{ i, j, weight: weight[i]! * weight[j]! * chain(a, b) }];
    }),
  );
  const wrong = 1 - complaint.sound;
  const perSingle = (wrong * singleShare) / weight.reduce((sum, w) => sum + w, 0);
  const perPair = (wrong * (1 - singleShare)) / pairs.reduce((sum, pair) => sum + pair.weight, 0);
  const make = (indices: number[], chosen: Cell[], prior: number): Particle => ({
    faults: indices,
    severities: chosen.map((cell) => cell.severity),
    codes: chosen.map((cell) => cell.code),
    edits: chosen.map((cell, n) => faults[indices[n]!]!.edits(cell.severity)),
    cellSigmas: chosen.map((cell) => cell.sigma),
    soundAbove: chosen.map((cell) => cell.soundAbove),
    prior,
  });
  return [
    make([], [], complaint.sound),
    ...faults.flatMap((_, i) =>
      graded[i]!.map((cell) => make([i], [cell], (weight[i]! * perSingle) / graded[i]!.length)),
    ),
    ...pairs.flatMap(({ i, j, weight: w }) =>
      graded[i]!.flatMap((a) =>
        graded[j]!.map((b) => make([i, j], [a, b], (w * perPair) / (graded[i]!.length * graded[j]!.length))),
      ),
    ),
  ];
}

/** A particle with the fault of another, which holds one alone, as well. */
function withFault(particle: Particle, alone: Particle): Particle {
  const [fault] = alone.faults;
  const after = particle.faults.findIndex((f) => f > fault!);
  const at = after < 0 ? particle.faults.length : after;
  const both = <T>(of: (one: Particle) => readonly T[]): readonly T[] => of(particle).toSpliced(at, 0, ...of(alone));
  return {
    faults: both((one) => one.faults),
    severities: both((one) => one.severities),
    codes: both((one) => one.codes),
    edits: both((one) => one.edits),
    cellSigmas: both((one) => one.cellSigmas),
    soundAbove: both((one) => one.soundAbove),
    prior: 0,
  };
}

/** A particle with a further fault, in each of its degrees. */
export interface WithMore {
  readonly fault: number;
  /** Places in the list of particles. */
  readonly particles: readonly number[];
}

/** Particles of more than two faults: far too many to list beforehand, those with one more than were found are few. */
export class MoreFaults {
  readonly #faults: readonly Fault[];
  readonly #particles: Particle[];
  /** Those of one fault alone. */
  readonly #alone: readonly (readonly Particle[])[];
  readonly #known = new Map<number, readonly WithMore[]>();
  readonly #places = new Map<string, number>();

  /** `particles`: the list that is added to. */
  constructor(faults: readonly Fault[], particles: Particle[]) {
    this.#faults = faults;
    this.#particles = particles;
    this.#alone = faults.map((_, f) => particles.filter((one) => one.faults.length === 1 && one.faults[0] === f));
  }

  /** A particle with every fault on another part. */
  beside(p: number): readonly WithMore[] {
    let known = this.#known.get(p);
    if (!known) {
      const particle = this.#particles[p]!;
      const taken = particle.faults.map((f) => this.#faults[f]!.part);
      known = this.#alone.flatMap((degrees, fault) => {
        if (taken.includes(this.#faults[fault]!.part)) return [];
        return [{ fault, particles: degrees.map((alone) => this.#placeOf(withFault(particle, alone))) }];
      });
      this.#known.set(p, known);
    }
    return known;
  }

  /** The same faults, whichever of them were found first, are one particle. */
  #placeOf(particle: Particle): number {
    const name = particle.codes.join(' ');
    let place = this.#places.get(name);
    if (place === undefined) this.#places.set(name, (place = this.#particles.push(particle) - 1));
    return place;
  }
}

/** The fault a code names. */
export const faultOfCode = (code: number): number => Math.floor(code / codesPerFault);
/** The same severity cell of another fault. */
export const codeWithFault = (code: number, fault: number): number => fault * codesPerFault + (code % codesPerFault);
