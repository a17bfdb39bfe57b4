import { type Blame, blameOf, complaintAfter } from '../blame/index.ts';
import { type Complaint, familyOf, type Machine, subjectOf } from '../machines/index.ts';
import { type Vehicle, vehicleSubject } from '../vehicle/index.ts';
import { complaintOf } from '../belief/index.ts';
import type { Diagnosis, Outlook } from './assessment.ts';
import { Session, type Situation, type TapeReading } from './session.ts';

/** All that follows from what was measured on the vehicle and told of it. */
export interface VehicleAssessment extends Diagnosis, Outlook {
  readonly blame: Blame;
}

/** The reasoning about one vehicle: is the unit to blame? */
export class VehicleSession extends Session {
  readonly #unit: Machine;

  constructor(vehicle: Vehicle, unit: Machine, complaintId: string, meters: readonly string[]) {
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
    return blameOf(this.opened, this.beliefAfter(readings), this.beliefAfter(alone), stop === undefined);
  }

  /** The complaint that the bench begins with. */
  complaintAfter(readings: readonly TapeReading[]): Complaint {
    const rows = familyOf(this.#unit).onVehicle(this.#unit);
    const heard = complaintOf(subjectOf(this.#unit), this.opened.complaint.id);
    return complaintAfter(heard, rows, this.opened, this.beliefAfter(readings));
  }
}

/** What a unit came from, as far as it was told and measured before the unit came off. */
export interface Origin {
  readonly vehicle: Vehicle;
  readonly readings: readonly TapeReading[];
}

export const vehicleSession = (
  unit: Machine,
  complaint: string,
  meters: readonly string[],
  origin: Origin,
): VehicleSession =>
  new VehicleSession(origin.vehicle, unit, complaint, [...meters, ...origin.readings.map((reading) => reading.meter)]);

/** The session of a unit on the bench; what its vehicle taught is where it begins. */
export function unitSession(unit: Machine, complaint: string, meters: readonly string[], origin?: Origin): Session {
  const subject = subjectOf(unit);
  const heard = complaintOf(subject, complaint);
  if (!origin?.readings.length) return new Session(subject, heard, meters);
  return new Session(subject, vehicleSession(unit, complaint, [], origin).complaintAfter(origin.readings), meters);
}
