import type { Check } from '../../checks/index.ts';
import type { Vehicle } from '../vehicle.ts';
import { batteryChecks } from './battery.ts';
import { byHand } from './by-hand.ts';
import { chargingChecks } from './charging.ts';
import { crankingChecks } from './cranking.ts';

export const vehicleChecks = (vehicle: Vehicle): readonly Check[] => [
  ...byHand(),
  ...batteryChecks(vehicle),
  ...crankingChecks(),
  ...chargingChecks(vehicle),
];
