/** A vehicle's charging and starting system, as far as it is known. */
export interface Vehicle {
  readonly ratedVolts: 12 | 24;
  readonly battery: 'flooded' | 'mat';
  /** Cold-cranking amps of the battery or of the whole set. */
  readonly crankingAmps: number;
  readonly ampHours: number;
  /** What the machine can give, A. */
  readonly machineAmps: number;
}

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
