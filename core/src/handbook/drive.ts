/** Of an alternator at full output, belt and all: 0.5 to 0.6 [common practice, no source]. */
export const usualEfficiency = 0.55;

/** What the stand's motor must give for an output, in watts. */
export const driveWatts = (volts: number, amps: number, efficiency = usualEfficiency): number =>
  (volts * amps) / efficiency;

/** The most amperes that a motor of so many watts can pull at a voltage. */
export const mostAmps = (watts: number, volts: number, efficiency = usualEfficiency): number =>
  (watts * efficiency) / volts;
