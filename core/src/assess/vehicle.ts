import { type Blame, blameOf, complaintAfter } from '../blame/index.ts';
import { type Complaint, familyOf, type Machine, subjectOf, type Variant } from '../machines/index.ts';
import { type Vehicle, vehicleSubject } from '../vehicle/index.ts';
import { type Belief, beliefAfterWork, complaintOf } from '../belief/index.ts';
import type { Multimeter } from '../instruments/index.ts';
import type { Diagnosis, Outlook } from './assessment.ts';
import { type Read, Session, type Situation, type TapeReading } from './session.ts';

/** All that follows from what was measured on the vehicle and told of it. */
export interface VehicleAssessment extends Diagnosis, Outlook {
  readonly blame: Blame;
}

/** The reasoning about one vehicle: is the unit to blame? */
export class VehicleSession extends Session {
  readonly #unit: Machine;

  constructor(vehicle: Vehicle, unit: Machine, complaintId: string, meters: readonly Multimeter[]) {
    const { subject, complaint } = vehicleSubject(vehicle, unit, complaintId);
    super(subject, complaint, meters);
    this.#unit = unit;
  }

  assessVehicle(situation: Situation): VehicleAssessment {
    const diagnosis = this.diagnose(situation);
    const outlook = this.outlook(situation);
    return { ...diagnosis, ...outlook, blame: this.blame(situation, outlook) };
  }

  blame({ readings }: Situation, { stop }: Outlook): Blame {
    const own = readings.filter(({ told = 'own' }) => told === 'own');
    const alone = own.length === readings.length ? readings : own;
    const [belief, ours] = [readings, alone].map((read) => this.beliefAfter({ readings: read })) as [Belief, Belief];
    return blameOf(this.opened, belief, ours, stop === undefined);
  }

  /** The complaint that the bench begins with. */
  complaintAfter(readings: readonly TapeReading[]): Complaint {
    const rows = familyOf(this.#unit).onVehicle(this.#unit);
    const heard = complaintOf(subjectOf(this.#unit), this.opened.complaint.id);
    return complaintAfter(heard, rows, this.opened, this.beliefAfter({ readings }));
  }
}

/** What a unit came from, as far as it was told and measured before the unit came off. */
export interface Origin {
  readonly vehicle: Vehicle;
  readonly readings: readonly TapeReading[];
}

/** What was done to the unit after a round of readings: items fitted new, parts mended in place. */
export interface Work {
  readonly fitted: readonly string[];
  readonly mended: readonly string[];
}

/** A round of readings that work has ended. */
export interface PastRound extends Read {
  readonly work: Work;
}

/** What is known of a unit before the first reading of a round. */
export interface Background {
  readonly origin?: Origin | undefined;
  /** Earlier rounds of the same visit, in order. */
  readonly past?: readonly PastRound[] | undefined;
  /** What else the model is built as. */
  readonly variants?: readonly Variant[] | undefined;
  /** How common units unlike their kind are where it is looked at, between 0 and 1; the usual share when it isn't said. */
  readonly unlikeShare?: number | undefined;
}

/** The session of a unit on the bench: it begins where its vehicle and the rounds before have led. */
export function unitSession(
  unit: Machine,
  complaint: string,
  meters: readonly Multimeter[],
  { origin, past = [], variants = [], unlikeShare }: Background = {},
): Session {
  const subject = subjectOf(unit, variants, unlikeShare);
  const heard = complaintOf(subject, complaint);
  const after = origin?.readings.length
    ? new VehicleSession(origin.vehicle, unit, complaint, meters).complaintAfter(origin.readings)
    : heard;
  const round = past.at(-1);
  if (!round) return new Session(subject, after, meters);
  const before = unitSession(unit, complaint, meters, { origin, past: past.slice(0, -1), variants, unlikeShare });
  return new Session(subject, after, meters, (opened, scope) =>
    beliefAfterWork(before.opened, before.beliefAfter(round), opened, round.work, scope),
  );
}
