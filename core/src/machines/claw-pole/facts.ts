import type { Unit } from '../../quantity/index.ts';
import type { Choice, Fact, FactValue } from '../fact.ts';
import type { Rule } from '../family.ts';
import { type ClawPole, type ClawPoleNumber, clawPoleNumbers } from './parameters.ts';

const choice = (id: string, name: string, ...choices: readonly (readonly [FactValue, string])[]): Fact => ({
  id,
  name,
  kind: { choices: choices.map(([value, spoken]): Choice => ({ value, name: spoken })) },
});
function quantity(id: ClawPoleNumber, unit: Unit, more: Pick<Fact, 'aside' | 'optional'> = {}): Fact {
  const { name, least, most } = clawPoleNumbers[id];
  return { id, name, ...more, kind: { unit, least, most } };
}

/** What describes a claw-pole alternator, by the names of its parameters. */
export const clawPoleFacts: readonly Fact[] = [
  choice('ratedVolts', 'Rated voltage', [12, '12 V'], [24, '24 V']),
  quantity('ratedAmps', 'amps'),
  choice('connection', 'Stator', ['star', 'star'], ['delta', 'delta'], ['unknown', 'not known']),
  choice('diodes', 'Rectifier diodes', [6, 'six'], [8, 'eight: two on the star point']),
  choice('diodeKind', 'Diode kind', ['silicon', 'silicon'], ['low-loss', 'low-loss'], ['unknown', 'not known']),
  choice('exciterDiodes', 'Exciter diodes', [true, 'three'], [false, 'none']),
  choice('regulatorSide', 'Field circuit', ['ground', 'ground side'], ['supply', 'supply side']),
  {
    ...choice(
      'regulator',
      'Regulator',
      ['built-in', 'built in'],
      ['commanded', 'built in, commanded'],
      ['separate', 'separate, electronic'],
      ['two-contact', 'separate, two contacts'],
    ),
    unsaid: 'built-in',
  },
  quantity('statorPairOhms', 'ohms', { aside: true }),
  quantity('rotorOhms', 'ohms', { aside: true }),
  quantity('brushNewMillimetres', 'millimetres', { aside: true }),
  quantity('brushLeastMillimetres', 'millimetres', { aside: true }),
  quantity('ringLeastMillimetres', 'millimetres', { aside: true, optional: true }),
  quantity('polePairs', 'times', { aside: true, optional: true }),
  quantity('cutInRpm', 'rpm', { aside: true, optional: true }),
];

export const clawPoleRules: readonly Rule<ClawPole>[] = [
  {
    name: 'brushes',
    holds: (m) => !(m.brushLeastMillimetres >= m.brushNewMillimetres),
    say: 'The least brush must be shorter than the new one: exchange the two lengths.',
  },
  {
    name: 'pole pairs',
    holds: ({ polePairs }) => polePairs === undefined || Number.isInteger(polePairs),
    say: 'Pole pairs come whole: type 6 for twelve poles.',
  },
  {
    name: 'eight diodes',
    holds: (m) => !(m.diodes === 8 && m.connection === 'delta'),
    say: 'Eight diodes need a star point: set the stator to star, or the diodes to six.',
  },
];
