import type { Check, Outcome } from '../checks/index.ts';
import type { Multimeter } from '../instruments/index.ts';
import { type Build, type Complaint, type Family, familyOf, type Fault, type Machine } from '../machines/index.ts';
import type { Gaussian } from '../numeric/index.ts';
import { type Dimensions, dimensionsOf, priorState } from './dimensions.ts';
import { type Particle, particlesOf } from './hypotheses.ts';
import { type Conditions, Predictor } from './predictor.ts';

/** A result as it enters the belief. */
export interface Reading extends Conditions {
  readonly check: Check;
  readonly outcome: Outcome;
}

/** One unit on the bench: all that is fixed while readings come in. */
export interface Case {
  readonly family: Family<Machine>;
  readonly machine: Machine;
  readonly complaint: Complaint;
  readonly builds: readonly Build[];
  readonly faults: readonly Fault[];
  readonly checks: readonly Check[];
  readonly particles: readonly Particle[];
  readonly dimensions: Dimensions;
  /** Before any reading, one for each build. */
  readonly priorStates: readonly Gaussian[];
  readonly predictor: (conditions: Conditions) => Predictor<Machine>;
}

/** Opens a case. `meters`: every meter that a reading was or will be taken with. */
export function openCase(machine: Machine, complaintId: string, meters: readonly Multimeter[]): Case {
  const family = familyOf(machine);
  const complaint = family.complaints.find((c) => c.id === complaintId);
  if (!complaint) throw new RangeError(`no complaint “${complaintId}” for ${family.name}`);
  const builds = family.builds(machine);
  const faults = family.faults(machine);
  const checks = family.checks(machine);
  const dimensions = dimensionsOf(meters, family.nuisances(machine, builds[0]!));
  const predictors = new Map<string, Predictor<Machine>>();
  return {
    family,
    machine,
    complaint,
    builds,
    faults,
    checks,
    particles: particlesOf(family, faults, complaint),
    dimensions,
    priorStates: builds.map((build) => priorState(meters, family.nuisances(machine, build))),
    predictor: (conditions) => {
      const name = `${conditions.meter.id} at ${conditions.celsius}`;
      let predictor = predictors.get(name);
      if (!predictor) {
        predictor = new Predictor(family, machine, faults, checks, dimensions, conditions);
        predictors.set(name, predictor);
      }
      return predictor;
    },
  };
}

/** A check of the case by its id. */
export function checkOf(opened: Case, id: string): Check {
  const check = opened.checks.find((c) => c.id === id);
  if (!check) throw new RangeError(`no check “${id}” for this ${opened.family.name}`);
  return check;
}
