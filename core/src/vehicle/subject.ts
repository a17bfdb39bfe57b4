import { type Complaint, familyOf, type Machine, type Subject } from '../machines/index.ts';
import { vehicleChecks } from './checks/index.ts';
import { vehicleComplaint } from './complaints.ts';
import { places, vehicleFaults } from './faults.ts';
import { starterAtWork } from './cranking.ts';
import { scenes, type Scene, vehicleNetwork, vehicleNuisances } from './network.ts';
import type { Vehicle } from './vehicle.ts';

/** Faults that come in company more often than chance has it [from memory]. */
const chains: readonly (readonly [string, string, number])[] = [
  ['battery-flat', 'body-drain', 6],
  ['battery-flat', 'excitation-lost', 6],
  ['battery-flat', 'fuse-blown', 6],
  ['battery-flat', 'belt-slip', 5],
];
/** [our estimate]: between a starter and an alternator on the bench. */
const wrongVerdictMinutes = 580;
/** What stops the charge leaves a flat battery behind. */
const flattens = 6;

/** The vehicle that a unit came from, as the belief knows it; its complaint is the unit's, heard by the whole vehicle. */
export function vehicleSubject(
  vehicle: Vehicle,
  unit: Machine,
  complaintId: string,
): { subject: Subject; complaint: Complaint } {
  const family = familyOf(unit);
  const heard = family.complaints.find(({ id }) => id === complaintId);
  if (!heard) throw new RangeError(`no complaint “${complaintId}” for ${family.name}`);
  const rows = family.onVehicle(unit);
  const complaint = vehicleComplaint(heard, rows);
  const checks = vehicleChecks(vehicle, rows);
  const starter = starterAtWork(vehicle, unit);
  const dead = new Set(rows.filter(({ output }) => output < 0.5).map(({ id }) => id));
  const subject: Subject = {
    name: 'Vehicle',
    complaints: [complaint],
    assemblies: scenes,
    symmetries: [{}],
    builds: [{ id: 'vehicle', name: 'vehicle', prior: 1 }],
    network: (_, scene) => vehicleNetwork(vehicle, (scene || 'parked') as Scene, starter),
    nuisances: () => vehicleNuisances(vehicle),
    parts: places,
    items: places,
    faults: vehicleFaults(vehicle, unit, unitWeight(vehicle, unit, heard, complaint)),
    checks,
    wrongVerdictMinutes,
    // A flat battery is a fault here, and seldom one of its own.
    twoAtMost: true,
    stops: {
      done: 'Every check on the vehicle has been done.',
      idle: 'No check on the vehicle pays for its minutes any more.',
    },
    chain: (a, b) => {
      if (a.id === 'battery-flat' || b.id === 'battery-flat') if (dead.has(a.id) || dead.has(b.id)) return flattens;
      return chains.find(([x, y]) => (x === a.id && y === b.id) || (y === a.id && x === b.id))?.[2] ?? 1;
    },
  };
  return { subject, complaint };
}

/**
 * The weight at which the unit's faults, complaint heard, have the share of all faults that the unit's own prior
 * gives them: the bench and the vehicle begin from one opinion of how often the unit is to blame.
 */
function unitWeight(vehicle: Vehicle, unit: Machine, heard: Complaint, complaint: Complaint): number {
  const weighed = (faults: ReturnType<typeof vehicleFaults>, part: (id: string) => boolean): number =>
    faults.filter((f) => part(f.part)).reduce((sum, f) => sum + f.weight * (complaint.factors[f.species] ?? 1), 0);
  const faults = vehicleFaults(vehicle, unit, 1);
  const others = weighed(faults, (part) => part !== 'unit');
  const own = weighed(faults, (part) => part === 'unit');
  const share = Math.min((1 - heard.sound) / (1 - complaint.sound), 0.95);
  return (share / (1 - share)) * (others / own);
}
