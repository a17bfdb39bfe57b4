import type { Multimeter, Range } from './multimeter.ts';

/** Filament test lamp: I = I0·v·(v² + va²)^((p−1)/2), v = V/V0; cold resistance a twelfth of hot [from memory]. */
export interface TestLamp {
  readonly ratedVolts: number;
  readonly ratedAmps: number;
  readonly supplyVolts: number;
}

const lampPower = 0.538;
const coldRatio = 12 ** (-1 / (1 - lampPower));

export const testLamp: TestLamp = { ratedVolts: 12, ratedAmps: 5 / 12, supplyVolts: 12.6 };

/** Current (A) of the lamp at `volts` across it. */
export function lampAmps(lamp: TestLamp, volts: number): number {
  const v = volts / lamp.ratedVolts;
  return lamp.ratedAmps * v * (v * v + coldRatio * coldRatio) ** ((lampPower - 1) / 2);
}

/** Insulation tester: 500 V behind 500 kΩ, shows up to 1 GΩ, ±5 % and 2 counts of 0.1 MΩ [from memory]. */
export const insulationTester = {
  fullScale: 1e9,
  step: 1e5,
  percent: 5,
  counts: 2,
  sourceVolts: 500,
  sourceOhms: 5e5,
} as const;

/** Direct-current clamp, zeroed: from milliamps of a drain to a starter's hundreds [from memory]. */
export const currentClamp: readonly Range[] = [
  { fullScale: 4, step: 0.001, percent: 2, counts: 10 },
  { fullScale: 60, step: 0.01, percent: 2, counts: 10 },
  { fullScale: 1500, step: 1, percent: 2.5, counts: 5 },
];

/** Tachometer on a shaft's end or by its mark: ±0.5 % and a turn [from memory]. */
const tachometer: readonly Range[] = [{ fullScale: 100_000, step: 1, percent: 0.5, counts: 1 }];
/** A brake's arm on a spring or a cell: ±2 % and a tenth [from memory]. */
const torqueArm: readonly Range[] = [{ fullScale: 500, step: 0.1, percent: 2, counts: 1 }];

/** What something that runs is read with. */
export type RunInstrument = 'clamp' | 'voltmeter' | 'tachometer' | 'torque arm';

export function runRanges(instrument: RunInstrument, meter: Multimeter): readonly Range[] {
  if (instrument === 'clamp') return currentClamp;
  if (instrument === 'voltmeter') return meter.volts;
  return instrument === 'tachometer' ? tachometer : torqueArm;
}

/** Bench supply, with a resistor in series; what it gives then is known to 3 % [from memory]. */
export const benchSupply = { volts: 12.6, relativeSigma: 0.03 } as const;

/** Series resistors (Ω) of the bench: about 5 A into a near short, and 1.7 A through a small diode [from memory]. */
export const seriesOhms = { fiveAmps: 2.4, smallDiode: 6.8 } as const;
