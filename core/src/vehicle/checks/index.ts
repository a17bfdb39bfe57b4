import type { Check, Odds } from '../../checks/index.ts';
import type { OnVehicle } from '../../machines/index.ts';
import type { Vehicle } from '../vehicle.ts';
import { batteryChecks } from './battery.ts';
import { byHand } from './by-hand.ts';
import { chargingChecks } from './charging.ts';
import { crankingChecks } from './cranking.ts';

/** `rows`: the unit's faults as the vehicle knows them. */
export function vehicleChecks(vehicle: Vehicle, rows: readonly OnVehicle[]): readonly Check[] {
  const ofUnit = (check: string): Odds =>
    Object.fromEntries(rows.flatMap(({ id, odds }) => (odds?.[check] ? [[id, odds[check]]] : [])));
  return [...byHand(ofUnit), ...batteryChecks(vehicle), ...crankingChecks(), ...chargingChecks(vehicle, ofUnit)];
}
