import type { Unit } from '../../quantity/index.ts';
import type { Choice, Fact, FactValue } from '../fact.ts';
import { type ClawPoleNumber, clawPoleNumbers } from './parameters.ts';

const choice = (id: string, name: string, ...choices: readonly (readonly [FactValue, string])[]): Fact => ({
  id,
  name,
  kind: { choices: choices.map(([value, spoken]): Choice => ({ value, name: spoken })) },
});
const quantity = (id: ClawPoleNumber, unit: Unit): Fact => ({ id, name: clawPoleNumbers[id].name, kind: { unit } });

/** What describes a claw-pole alternator, by the names of its parameters. */
export const clawPoleFacts: readonly Fact[] = [
  choice('ratedVolts', 'Rated voltage', [12, '12 V'], [24, '24 V']),
  quantity('ratedAmps', 'amps'),
  choice('connection', 'Stator', ['star', 'star'], ['delta', 'delta'], ['unknown', 'not known']),
  choice('diodes', 'Rectifier diodes', [6, 'six'], [8, 'eight: two on the star point']),
  choice('diodeKind', 'Diode kind', ['silicon', 'silicon'], ['low-loss', 'low-loss'], ['unknown', 'not known']),
  choice('exciterDiodes', 'Exciter diodes', [true, 'three'], [false, 'none']),
  choice('regulatorSide', 'Field circuit', ['ground', 'ground side'], ['supply', 'supply side']),
  quantity('statorPairOhms', 'ohms'),
  quantity('rotorOhms', 'ohms'),
  quantity('brushNewMillimetres', 'millimetres'),
  quantity('brushLeastMillimetres', 'millimetres'),
  quantity('ringLeastMillimetres', 'millimetres'),
];
