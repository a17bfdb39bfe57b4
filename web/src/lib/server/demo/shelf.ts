import type { FactValue } from '@refectum/core/machines';
import type { Facts, ShelfModel } from '@refectum/core/shelf';

/** Invented, like everything in the demo: no real model, sheet or value. */

const from = (source: string, values: Readonly<Record<string, FactValue>>): Facts =>
  Object.fromEntries(Object.entries(values).map(([id, value]) => [id, { value, source }]));

const plate = 'rating plate';
const priceList = 'mainland price list, spring 2026';
const parts = (rectifier: number, rotor: number, stator: number, regulator: number, brushes: number): Facts =>
  from(priceList, {
    'price.rectifier': rectifier,
    'price.rotor': rotor,
    'price.stator': stator,
    'price.regulator': regulator,
    'price.brushes': brushes,
    'price.exchange': 210,
    'price.core': 25,
  });

export const demoShelf: readonly ShelfModel[] = [
  {
    name: 'Ferrolux 28-90',
    family: 'claw-pole',
    facts: {
      ...from(plate, { ratedVolts: 24, ratedAmps: 90, direction: 'clockwise' }),
      ...from('Ferrolux bench sheet 7', {
        frame: 'F28',
        connection: 'star',
        diodeKind: 'silicon',
        exciterDiodes: true,
        regulatorSide: 'ground',
        statorPairOhms: 0.22,
        rotorOhms: 8.6,
        brushNewMillimetres: 14,
        brushLeastMillimetres: 5,
        'limit.ring-ring.least': 7.9,
        'limit.ring-ring.most': 9.2,
      }),
      ...parts(44, 85, 78, 38, 9),
    },
    variants: [],
    traps: [
      {
        about: 'brush-holder',
        say: 'The holder of the 28-110 fits too, and its brushes sit 2 mm too high: look for the notch on the left.',
        source: 'tag 1012',
      },
    ],
  },
  {
    name: 'Ferrolux 28-110',
    family: 'claw-pole',
    facts: {
      ...from(plate, { ratedVolts: 24, ratedAmps: 110, direction: 'clockwise' }),
      ...from('Ferrolux bench sheet 7', {
        frame: 'F28',
        connection: 'star',
        diodeKind: 'silicon',
        statorPairOhms: 0.18,
        rotorOhms: 8.2,
      }),
      ...parts(52, 92, 84, 38, 9),
    },
    variants: [],
    traps: [],
  },
  {
    name: 'Harrow 14-120',
    family: 'claw-pole',
    facts: {
      ...from(plate, { ratedVolts: 12, ratedAmps: 120 }),
      ...from('three sound units measured here', {
        connection: 'star',
        diodeKind: 'silicon',
        statorPairOhms: 0.1,
        rotorOhms: 2.7,
      }),
      ...parts(47, 80, 75, 34, 8),
    },
    variants: [
      {
        name: 'Late stator',
        tell: 'Green varnish, two wires in hand.',
        facts: from('tag 1003', { statorPairOhms: 0.075 }),
      },
    ],
    traps: [],
  },
  {
    name: 'Pumpmate 65',
    family: 'claw-pole',
    facts: { ...from(plate, { ratedVolts: 12, ratedAmps: 65 }), ...parts(36, 60, 58, 30, 7) },
    variants: [],
    traps: [
      {
        about: 'field-circuit',
        say: 'Pumps before the refit have one brush grounded, later ones none: try both brushes to core first.',
        source: 'own bench, tag 1010',
      },
    ],
  },
  {
    name: 'Marine 12-70',
    family: 'claw-pole',
    facts: { ...from(plate, { ratedVolts: 12, ratedAmps: 70, direction: 'either' }), ...parts(40, 66, 62, 33, 7) },
    variants: [],
    traps: [
      {
        about: 'direction',
        say: 'Turns either way, its fan does not: the blades must lean away from the turn.',
        source: 'own bench, tag 1009',
      },
    ],
  },
  {
    name: 'Slipway 24-55 S',
    family: 'starter',
    facts: {
      ...from(plate, { ratedVolts: 24, ratedKilowatts: 5.5, layout: 'reduction', direction: 'clockwise' }),
      ...from(priceList, { 'price.solenoid': 42, 'price.armature': 95, 'price.brushes': 14, 'price.drive': 36 }),
    },
    variants: [],
    traps: [
      {
        about: 'rating',
        say: 'The 24-40 has the same nose and bolts on: it cranks the harvesters too slowly below freezing.',
        source: 'own bench, tag 1016',
      },
    ],
  },
];
