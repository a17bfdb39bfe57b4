import { type Check, leadsNull } from '../../../checks/index.ts';
import type { ClawPole } from '../parameters.ts';
import { bridge } from './bridge.ts';
import { brushesByEye, brushLength, brushToRing, ringDiameter, ringsByEye } from './brushes.ts';
import { byHand, inHand, statorByEye } from './by-hand.ts';
import {
  diodesAlone,
  diodesJoined,
  diodesUnderCurrent,
  exciterAlone,
  exciterDiodes,
  exciterUnderCurrent,
} from './diodes.ts';
import { fieldThroughBrushes } from './field.ts';
import { regulatorTwin } from './regulator.ts';
import { rotorChecks } from './rotor.ts';
import { onStand } from './stand.ts';

export { outputPoint } from './stand.ts';
import { statorPairs, statorToCore } from './stator.ts';

/** In the order of work. */
const catalogue: readonly ((machine: ClawPole) => Check[])[] = [
  leadsNull,
  byHand,
  bridge,
  fieldThroughBrushes,
  brushLength,
  brushesByEye,
  ringsByEye,
  brushToRing,
  ringDiameter,
  inHand,
  statorByEye,
  regulatorTwin,
  rotorChecks,
  diodesJoined,
  diodesUnderCurrent,
  exciterDiodes,
  exciterUnderCurrent,
  statorPairs,
  diodesAlone,
  exciterAlone,
  statorToCore,
  onStand,
];

export const clawPoleChecks = (machine: ClawPole): readonly Check[] => catalogue.flatMap((make) => make(machine));
