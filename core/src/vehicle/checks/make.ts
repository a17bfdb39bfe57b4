import { type Check, meterCheck, type Odds } from '../../checks/index.ts';
import { clampOhms, type Scene } from '../network.ts';

/** What the unit's own faults make of a check by eye, ear or hand: the family says it. */
export type OfUnit = (check: string) => Odds;

interface LiveCheck {
  readonly species: string;
  readonly name: string;
  readonly scene: Scene;
  readonly minutes: number;
  readonly red: string;
  readonly black: string;
  readonly how: string;
  readonly tells: string;
  readonly cautions?: readonly string[];
}

/** Volts between two places of the live vehicle. */
export const liveVolts = ({ red, black, scene, ...rest }: LiveCheck): Check =>
  meterCheck({ ...rest, assembly: scene, setup: { function: 'volts', red, black } });

/** Amps through one of the places a clamp fits round, counted from red to black. */
export const clampAmps = ({ red, black, scene, ...rest }: LiveCheck): Check =>
  meterCheck({ ...rest, assembly: scene, setup: { function: 'amps', red, black, shuntOhms: clampOhms } });
