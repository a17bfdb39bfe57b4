import type { JunctionLaw } from './junction.ts';

/** A resistance between two named nodes. `spread` names the uncertain quantities that scale it. */
export interface Resistor {
  readonly name: string;
  readonly a: string;
  readonly b: string;
  /** At 20 °C when copper, else at any temperature. */
  readonly ohms: number;
  readonly copper?: boolean;
  readonly spread?: readonly string[];
}

/** A junction from anode to cathode. `spread` names the uncertain voltages that shift it. */
export interface Junction {
  readonly name: string;
  readonly anode: string;
  readonly cathode: string;
  readonly law: JunctionLaw;
  readonly spread?: readonly string[];
}

export interface Network {
  readonly resistors: readonly Resistor[];
  readonly junctions: readonly Junction[];
}

/** What a fault does to one element. `open` takes a junction out of the circuit. */
export type Edit =
  | { readonly element: string; readonly set: number }
  | { readonly element: string; readonly add: number }
  | { readonly element: string; readonly scale: number }
  | { readonly element: string; readonly open: true };

/** Temperature coefficient of annealed copper's resistance at 20 °C, per kelvin [IEC 60028:1925, 0.00393]. */
export const copperPerKelvin = 0.00393;

/** Resistance of copper at `celsius` from its value at 20 °C. */
export const copperOhms = (ohmsAt20: number, celsius: number): number =>
  ohmsAt20 * (1 + copperPerKelvin * (celsius - 20));
