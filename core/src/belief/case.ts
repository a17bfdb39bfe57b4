import type { Check, Outcome } from '../checks/index.ts';
import type { Multimeter } from '../instruments/index.ts';
import type { Build, Complaint, Fault, Subject } from '../machines/index.ts';
import type { Gaussian } from '../numeric/index.ts';
import { bendsOf, type Dimensions, dimensionsOf, priorState } from './dimensions.ts';
import { type Particle, particlesOf, MoreFaults, type WithMore } from './hypotheses.ts';
import { type Conditions, Predictor } from './predictor.ts';
import { Memory } from './memory.ts';

/** A result as it enters the belief. */
export interface Reading extends Conditions {
  readonly check: Check;
  readonly outcome: Outcome;
  /** Chance that the entry has nothing to do with the subject; more when somebody else told it. */
  readonly slip?: number;
}

/** One unit on the bench: all that is fixed while readings come in. */
export interface Case {
  readonly subject: Subject;
  readonly complaint: Complaint;
  readonly builds: readonly Build[];
  readonly faults: readonly Fault[];
  readonly checks: readonly Check[];
  /** Every hypothesis weighed so far: those of more than two faults are added as the others are found. */
  readonly particles: readonly Particle[];
  /** Those that hold a further fault beside the two and more of a particle. */
  readonly withMore: (particle: number) => readonly WithMore[];
  readonly dimensions: Dimensions;
  /** Before any reading, one for each build. */
  readonly priorStates: readonly Gaussian[];
  readonly predictor: (conditions: Conditions) => Predictor;
  /** What its predictors remember. */
  readonly memory: Memory;
}

/** Opens a case. `meters`: every meter that a reading was or will be taken with. */
export function openCase(subject: Subject, complaint: Complaint, meters: readonly Multimeter[]): Case {
  const { builds, faults, checks } = subject;
  const uncertain = (build: Build) => [...subject.nuisances(build), ...bendsOf(checks)];
  const dimensions = dimensionsOf(meters, uncertain(builds[0]!));
  const predictors = new Map<string, Predictor>();
  const memory = new Memory();
  const particles = particlesOf(subject, complaint);
  const more = new MoreFaults(faults, particles);
  return {
    subject,
    complaint,
    builds,
    faults,
    checks,
    particles,
    withMore: (particle) => more.beside(particle),
    dimensions,
    priorStates: builds.map((build) => priorState(meters, uncertain(build))),
    predictor: (conditions) => {
      const name = `${conditions.meter.id} at ${conditions.celsius}`;
      let predictor = predictors.get(name);
      if (!predictor) {
        predictor = new Predictor(subject, dimensions, conditions, memory);
        predictors.set(name, predictor);
      }
      return predictor;
    },
    memory,
  };
}

/** The complaint with an id; one that the subject doesn't know is a mistake of the caller. */
export function complaintOf(subject: Subject, id: string): Complaint {
  const complaint = subject.complaints.find((c) => c.id === id);
  if (!complaint) throw new RangeError(`no complaint “${id}” for ${subject.name}`);
  return complaint;
}

/** A check of the case by its id. */
export function checkOf(opened: Case, id: string): Check {
  const check = opened.checks.find((c) => c.id === id);
  if (!check) throw new RangeError(`no check “${id}” for this ${opened.subject.name}`);
  return check;
}
