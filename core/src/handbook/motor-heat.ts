/** A run of a motor that is over: how long ago it ended, how long it was, what its windings took. */
export interface HeatRun {
  readonly endedSecondsAgo: number;
  readonly seconds: number;
  readonly watts: number;
}

/** What a starter's copper and the iron around it take up, J/K for each rated kilowatt, and how slowly it cools, s [from memory]. */
const joulesPerKelvinKilowatt = 300;
const coolingSeconds = 900;

/** Of a starter between two runs of 10 s at most [common practice, no source]. */
export const starterRestMinutes = 2;

/** Kelvin above the room that runs have left in a starter's windings: all heat stays in at first, then decays. */
export const heatLeft = (runs: readonly HeatRun[], kilowatts: number): number =>
  runs.reduce(
    (sum, { endedSecondsAgo, seconds, watts }) =>
      sum + ((watts * seconds) / (joulesPerKelvinKilowatt * kilowatts)) * Math.exp(-endedSecondsAgo / coolingSeconds),
    0,
  );
