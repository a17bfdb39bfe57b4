import type { JunctionLaw } from './junction.ts';

/** A resistance between two named nodes. `spread` names the uncertain quantities that scale it. */
export interface Resistor {
  readonly name: string;
  readonly a: string;
  readonly b: string;
  /** At 20 °C. */
  readonly ohms: number;
  readonly copper?: boolean;
  /** Relative change per kelvin, from 20 °C; copper has its own. */
  readonly perKelvin?: number;
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

/** A voltage behind a resistance that is part of the network: a battery's cells, a machine that turns. */
export interface Emf {
  readonly name: string;
  readonly plus: string;
  readonly minus: string;
  readonly volts: number;
  readonly ohms: number;
  /** Names the uncertain voltages that shift it. */
  readonly spread?: readonly string[];
}

export interface Network {
  readonly resistors: readonly Resistor[];
  readonly junctions: readonly Junction[];
  readonly emfs?: readonly Emf[];
}

/** What a fault does to one element: a resistance in ohms, an EMF in volts. `open` takes a junction out of the circuit. */
export type Edit =
  | { readonly element: string; readonly set: number }
  | { readonly element: string; readonly add: number }
  | { readonly element: string; readonly scale: number }
  | { readonly element: string; readonly open: true };

/** Temperature coefficient of annealed copper's resistance at 20 °C, per kelvin [IEC 60028:1925, 0.00393]. */
export const copperPerKelvin = 0.00393;

/** The relative change per kelvin of a resistance. */
export const perKelvinOf = ({ copper, perKelvin = 0 }: Resistor): number => (copper ? copperPerKelvin : perKelvin);

/** Resistance of copper at `celsius` from its value at 20 °C. */
export const copperOhms = (ohmsAt20: number, celsius: number): number =>
  ohmsAt20 * (1 + copperPerKelvin * (celsius - 20));
