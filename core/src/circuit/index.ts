export { networkBetween } from './between.ts';
export type { Damping } from './damper.ts';
export {
  Circuit,
  type ElementValues,
  type OperatingPoint,
  type Sensitivity,
  type Source,
  type SpreadKind,
} from './circuit.ts';
export {
  type Celsius,
  type Coil,
  type Coupling,
  type Draw,
  type Period,
  type Running,
  Turning,
  type TurningNetwork,
} from './transient.ts';
export type { Settled } from './stepping.ts';
export { type JunctionLaw, saturationFor, zeroCelsius } from './junction.ts';
export {
  copperOhms,
  copperPerKelvin,
  type Edit,
  type Emf,
  type Junction,
  type Network,
  type Resistor,
} from './network.ts';
