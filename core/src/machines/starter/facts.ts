import type { Unit } from '../../quantity/index.ts';
import type { Choice, Fact } from '../fact.ts';
import type { Rule } from '../family.ts';
import { layoutNames, type Starter, type StarterNumber, starterNumbers } from './parameters.ts';

function quantity(id: StarterNumber, unit: Unit, more: Pick<Fact, 'aside' | 'optional'> = {}): Fact {
  const { name, least, most } = starterNumbers[id];
  return { id, name, ...more, kind: { unit, least, most } };
}

/** What describes a starter, by the names of its parameters. */
export const starterFacts: readonly Fact[] = [
  {
    id: 'ratedVolts',
    name: 'Rated voltage',
    kind: {
      choices: [
        { value: 12, name: '12 V' },
        { value: 24, name: '24 V' },
      ],
    },
  },
  quantity('ratedKilowatts', 'kilowatts'),
  {
    id: 'layout',
    name: 'Drive and field',
    kind: { choices: Object.entries(layoutNames).map(([value, name]): Choice => ({ value, name })) },
  },
  quantity('gearRatio', 'times', { aside: true }),
  quantity('noLoadVolts', 'volts', { aside: true }),
  quantity('noLoadAmps', 'amps', { aside: true }),
  quantity('noLoadRpm', 'rpm', { aside: true }),
  quantity('stallVolts', 'volts', { aside: true, optional: true }),
  quantity('stallAmps', 'amps', { aside: true, optional: true }),
  quantity('stallNewtonMetres', 'newtonMetres', { aside: true, optional: true }),
  quantity('pullInOhms', 'ohms', { aside: true }),
  quantity('holdInOhms', 'ohms', { aside: true }),
  quantity('brushNewMillimetres', 'millimetres', { aside: true }),
  quantity('brushLeastMillimetres', 'millimetres', { aside: true }),
  quantity('commutatorLeastMillimetres', 'millimetres', { aside: true, optional: true }),
  quantity('pinionTeeth', 'times', { aside: true, optional: true }),
];

const stall = ({ stallVolts, stallAmps, stallNewtonMetres }: Starter) => [stallVolts, stallAmps, stallNewtonMetres];

export const starterRules: readonly Rule<Starter>[] = [
  {
    name: 'brushes',
    holds: (m) => !(m.brushLeastMillimetres >= m.brushNewMillimetres),
    say: 'The least brush must be shorter than the new one: exchange the two lengths.',
  },
  {
    name: 'ratio',
    holds: (m) => (m.layout === 'direct' || m.layout === 'inertia' ? m.gearRatio === 1 : m.gearRatio > 1),
    say: 'Without a gear the ratio is 1, with one above it.',
  },
  {
    name: 'held',
    holds: (m) => stall(m).every((one) => one === undefined) || stall(m).every((one) => one !== undefined),
    say: 'Held: volts, amps and torque are known together or not at all.',
  },
];
