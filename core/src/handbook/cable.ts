import { copperOhms } from '../circuit/index.ts';

/**
 * Resistance of a stranded copper conductor at 20 °C, Ω/km, by cross-section in mm² [IEC 60228:2004, table 3, class 5,
 * plain wires; figures from memory].
 */
export const metricGauges: readonly (readonly [square: number, ohmsPerKilometre: number])[] = [
  [0.5, 39],
  [0.75, 26],
  [1, 19.5],
  [1.5, 13.3],
  [2.5, 7.98],
  [4, 4.95],
  [6, 3.3],
  [10, 1.91],
  [16, 1.21],
  [25, 0.78],
  [35, 0.554],
  [50, 0.386],
  [70, 0.272],
  [95, 0.206],
];

/** Diameter in mm of a solid AWG wire: 0.127 · 92^((36 − n)/39) [ASTM B258]; 0, 00, 000 are 0, −1, −2. */
const awgDiameter = (gauge: number): number => 0.127 * 92 ** ((36 - gauge) / 39);
export const awgSquare = (gauge: number): number => (Math.PI / 4) * awgDiameter(gauge) ** 2;
/** Annealed copper at 20 °C [IEC 60028:1925: 1/58 Ω·mm²/m]. */
const copperResistivity = 1 / 58;

export type Gauge = { readonly square: number } | { readonly awg: number };

export interface CableDrop {
  readonly ohms: number;
  readonly volts: number;
}

/**
 * Resistance of a copper cable of one length, there only, and the drop along it.
 *
 * @param metres length of one conductor
 * @throws RangeError for a cross-section that no table holds, or a length that is none
 */
export function cableDrop(metres: number, gauge: Gauge, amps: number, celsius = 20): CableDrop {
  if (!(metres > 0)) throw new RangeError('A cable needs a length above 0 m.');
  const ohms = copperOhms((metres / 1000) * ohmsPerKilometre(gauge), celsius);
  return { ohms, volts: ohms * amps };
}

function ohmsPerKilometre(gauge: Gauge): number {
  if ('awg' in gauge) return (1000 * copperResistivity) / awgSquare(gauge.awg);
  const row = metricGauges.find(([square]) => square === gauge.square);
  if (!row) throw new RangeError(`no conductor of ${gauge.square} mm²: ${metricGauges.map(([s]) => s).join(', ')}`);
  return row[1];
}

/** A measured drop as the path's resistance, and the drop it would have at rated amps. */
export function dropAtRated(volts: number, amps: number, ratedAmps: number): CableDrop {
  if (!(amps > 0)) throw new RangeError('A drop says nothing without the amps that flowed.');
  return { ohms: volts / amps, volts: (volts / amps) * ratedAmps };
}
