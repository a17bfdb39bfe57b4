/** A vehicle's charging and starting system, as far as it is known. */
export interface Vehicle {
  readonly ratedVolts: 12 | 24;
  readonly battery: 'flooded' | 'mat';
  /** Cold-cranking amps of the battery or of the whole set. */
  readonly crankingAmps: number;
  readonly ampHours: number;
  /** What the machine can give, A. */
  readonly machineAmps: number;
  /** Where it isn't known, an engine such as the starter's size turns. */
  readonly engineLitres?: number | undefined;
  readonly fuel?: Fuel | undefined;
}

export type Fuel = 'petrol' | 'diesel';

/** The numbers that describe a vehicle, with their range. */
export const vehicleNumbers = {
  crankingAmps: { name: 'Cold-cranking amps', symbol: 'A', least: 50, most: 3000 },
  ampHours: { name: 'Battery', symbol: 'Ah', least: 2, most: 1000 },
  machineAmps: { name: 'The unit’s rated current', symbol: 'A', least: 5, most: 500 },
  engineLitres: { name: 'Engine', symbol: 'l', least: 0.1, most: 40 },
} as const;

export type VehicleNumber = keyof typeof vehicleNumbers;

/** A vehicle of which nothing is known but its volts and the machine's amps. */
export const vehicleGeneric = (ratedVolts: 12 | 24, machineAmps: number): Vehicle => ({
  ratedVolts,
  battery: 'flooded',
  crankingAmps: 600,
  ampHours: 60,
  machineAmps,
});

/** All volts scale with the number of cells. */
export const sets = ({ ratedVolts }: Vehicle): number => ratedVolts / 12;
