/** Of an alternator at full output, belt and all: 0.5 to 0.6 [common practice, no source]. */
export const usualEfficiency = 0.55;

/** What the stand's motor must give for an output, in watts. */
export const driveWatts = (volts: number, amps: number, efficiency = usualEfficiency): number =>
  (volts * amps) / efficiency;

/** The most amperes that a motor of so many watts can pull at a voltage. */
export const mostAmps = (watts: number, volts: number, efficiency = usualEfficiency): number =>
  (watts * efficiency) / volts;

/** What a stand has, as far as somebody said. */
export interface StandProfile {
  readonly motorKilowatts?: number | undefined;
  /** What its belt carries without slipping. */
  readonly beltKilowatts?: number | undefined;
  /** In the lead from the output post. */
  readonly fuseAmps?: number | undefined;
  /** The load: its most, and how long it may stay on. */
  readonly loadAmps?: number | undefined;
  readonly loadSeconds?: number | undefined;
  /** The most that the brake or the arm of the starter bench takes; none where there is none. */
  readonly brakeNewtonMetres?: number | undefined;
  /** What a commander of duty-cycle regulators sends at; none where there is none. */
  readonly commanderHertz?: number | undefined;
  /** How fast an oscilloscope on the clamp samples; none where there is none. */
  readonly oscilloscopeKilohertz?: number | undefined;
}

export type StandLimiter = 'motor' | 'belt' | 'fuse' | 'load';

/** The most that a stand can take from a unit at a voltage, and by what it ends; undefined where nothing is said. */
export function standLimit(profile: StandProfile, volts: number): { amps: number; by: StandLimiter } | undefined {
  const ends: { amps: number | undefined; by: StandLimiter }[] = [
    { amps: profile.motorKilowatts && mostAmps(1000 * profile.motorKilowatts, volts), by: 'motor' },
    { amps: profile.beltKilowatts && mostAmps(1000 * profile.beltKilowatts, volts), by: 'belt' },
    { amps: profile.fuseAmps, by: 'fuse' },
    { amps: profile.loadAmps, by: 'load' },
  ];
  return ends
    .flatMap(({ amps, by }) => (amps === undefined ? [] : [{ amps, by }]))
    .reduce<{ amps: number; by: StandLimiter } | undefined>(
      (least, one) => (!least || one.amps < least.amps ? one : least),
      undefined,
    );
}
