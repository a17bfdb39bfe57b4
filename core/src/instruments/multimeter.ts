/** One range of a meter: full scale and smallest step in the base unit, accuracy ±(percent of reading + counts). */
export interface Range {
  readonly fullScale: number;
  readonly step: number;
  readonly percent: number;
  readonly counts: number;
}

/** An ohms range: the meter's source behind its range resistor; it shows volts over amps at its own terminals. */
export interface OhmsRange extends Range {
  readonly sourceVolts: number;
  readonly sourceOhms: number;
}

export interface Multimeter {
  readonly id: string;
  readonly name: string;
  readonly description: string;
  /** Diode mode: open-circuit volts behind a resistance; beyond `fullScale` it shows OL. */
  readonly diode: Range & { readonly sourceVolts: number; readonly sourceOhms: number };
  readonly ohms: readonly OhmsRange[];
  readonly volts: readonly Range[];
  readonly voltsInputOhms: number;
  /** AC volts are true up to here. */
  readonly bandwidthHertz: number;
  /** Test leads, both together: usual value and standard uncertainty before a null is taken. */
  readonly leadOhms: number;
  readonly leadOhmsSigma: number;
}

const ohmsRanges = (
  fullScales: readonly number[],
  counts: number,
  percent: number,
  digits: number,
  sourceVolts: number,
): OhmsRange[] =>
  fullScales.map((fullScale) => ({
    fullScale,
    step: fullScale / counts,
    percent: fullScale > 1e6 ? percent * 2 : percent,
    counts: digits,
    sourceVolts,
    sourceOhms: Math.min(fullScale * 4, fullScale <= 1e6 ? fullScale * 2.5 : 1e7),
  }));

const voltRanges = (fullScales: readonly number[], counts: number, percent: number, digits: number): Range[] =>
  fullScales.map((fullScale) => ({ fullScale, step: fullScale / counts, percent, counts: digits }));

/** Three described instruments, cheap to bench grade. Sources and accuracies are representative [from memory]. */
export const multimeters: readonly Multimeter[] = [
  {
    id: 'pocket',
    name: 'Pocket meter',
    description: '2 000 counts, 0.1 Ω steps, leads of about half an ohm',
    diode: { fullScale: 2, step: 0.001, percent: 2, counts: 3, sourceVolts: 2.7, sourceOhms: 2700 },
    ohms: ohmsRanges([200, 2e3, 2e4, 2e5, 2e6, 2e7], 2000, 1.2, 3, 0.6),
    volts: voltRanges([2, 20, 200, 600], 2000, 1, 3),
    voltsInputOhms: 1e6,
    bandwidthHertz: 400,
    leadOhms: 0.5,
    leadOhmsSigma: 0.2,
  },
  {
    id: 'workshop',
    name: 'Workshop meter',
    description: '4 000 counts, 0.1 Ω steps, true rms to 1 kHz',
    diode: { fullScale: 2, step: 0.001, percent: 1, counts: 2, sourceVolts: 2.8, sourceOhms: 2250 },
    ohms: [1.6e3, 1e4, 1e5, 1e6, 1e7, 4e7].map((sourceOhms, i) => ({
      fullScale: 400 * 10 ** i > 4e6 ? 4e7 : 400 * 10 ** i,
      step: 0.1 * 10 ** i,
      percent: i < 5 ? 0.8 : 2,
      counts: 2,
      sourceVolts: 1.2,
      sourceOhms,
    })),
    volts: voltRanges([4, 40, 400, 1000], 4000, 0.5, 2),
    voltsInputOhms: 1e7,
    bandwidthHertz: 1000,
    leadOhms: 0.3,
    leadOhmsSigma: 0.12,
  },
  {
    id: 'bench',
    name: 'Bench meter',
    description: '50 000 counts, 1 mΩ steps, true rms to 100 kHz',
    diode: { fullScale: 2.4, step: 0.0001, percent: 0.1, counts: 5, sourceVolts: 3.5, sourceOhms: 3000 },
    ohms: ohmsRanges([50, 500, 5e3, 5e4, 5e5, 5e6, 5e7], 50000, 0.1, 10, 1),
    volts: voltRanges([0.5, 5, 50, 500], 50000, 0.05, 5),
    voltsInputOhms: 1e7,
    bandwidthHertz: 100e3,
    leadOhms: 0.1,
    leadOhmsSigma: 0.04,
  },
];

export function multimeterById(id: string): Multimeter {
  const found = multimeters.find((meter) => meter.id === id);
  if (!found) throw new Error(`no meter “${id}”: known are ${multimeters.map((m) => m.id).join(', ')}`);
  return found;
}

/** The range that shows `value`: the first whose full scale reaches it, else the last. */
export function rangeFor<R extends Range>(ranges: readonly R[], value: number): R {
  return ranges.find((range) => Math.abs(value) <= range.fullScale) ?? ranges[ranges.length - 1]!;
}

/** The part of ±a that every reading of the range shares, as a relative standard uncertainty (rectangular: a/√3). */
export const gainSigma = (range: Range): number => range.percent / 100 / Math.sqrt(3);

/** The part of ±a that each reading has anew: counts (a/√3) and rounding (step/√12), in the base unit. */
export const countSigma = (range: Range): number => range.step * Math.sqrt((range.counts * range.counts) / 3 + 1 / 12);

/** Standard uncertainty of one reading of `value` on a range, gain and counts together. */
export const readingSigma = (range: Range, value: number): number =>
  Math.hypot(gainSigma(range) * value, countSigma(range));
