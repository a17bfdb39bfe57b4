import { type Check, findingCheck } from '../../checks/index.ts';
import type { OfUnit } from './make.ts';

const live = [
  { id: 'live', name: 'Live as it should be', word: 'sound' },
  { id: 'dead', name: 'Dead, or far below the battery', word: 'failed' },
] as const;

/** A feed at the unit's plug: dead means fuse or wiring, not the unit. */
const plugFeed = (id: string, name: string, how: string, odds: Readonly<Record<string, readonly number[]>>): Check =>
  findingCheck({
    id,
    name,
    assembly: '',
    minutes: 1,
    how,
    tells: 'fuse and wiring from the unit',
    cautions: ['Volts, not ohms: this path carries current.'],
    outcomes: live,
    usual: [0.97, 0.03],
    odds,
  });

export const byHand = (ofUnit: OfUnit): Check[] => [
  plugFeed(
    'plug-ignition',
    'Excitation feed at the plug, key on',
    'Plug off, key on, from its excitation or ignition pin to ground; through a lamp about 1 V below the battery is normal.',
    {
      'excitation-lost': [0.06, 0.94],
    },
  ),
  plugFeed(
    'plug-sense',
    'Sense feed at the plug, key off and on',
    'Plug off, from its sense pin to ground: battery volts, always.',
    {
      'sense-bad': [0.3, 0.7],
      'fuse-blown': [0.6, 0.4],
    },
  ),
  findingCheck({
    id: 'lamp',
    name: 'Charge lamp with the key',
    assembly: '',
    minutes: 0.5,
    how: 'Key on, engine off; then running.',
    tells: 'the exciting circuit, and what the unit gives',
    outcomes: [
      { id: 'right', name: 'On with the key, off when running', word: 'sound' },
      { id: 'stays', name: 'Stays on when running', word: 'failed' },
      { id: 'never', name: 'Never lights', word: 'failed' },
      { id: 'glows', name: 'Glows when running, or with the key off', word: 'failed' },
    ],
    usual: [0.9, 0.05, 0.03, 0.02],
    odds: {
      ...ofUnit('lamp'),
      'excitation-lost': [0.05, 0.2, 0.73, 0.02],
      'fuse-blown': [0.25, 0.6, 0.1, 0.05],
      'belt-slip': [0.45, 0.4, 0.02, 0.13],
      'charge-cable': [0.65, 0.15, 0.02, 0.18],
    },
  }),
  findingCheck({
    id: 'engine-by-hand',
    name: 'Engine turned by hand',
    assembly: 'parked',
    minutes: 3,
    how: 'Key out, out of gear, a bar on the crankshaft pulley’s bolt: two turns.',
    tells: 'a tight engine from a starter that drags',
    cautions: [
      'Key out of the lock; the starter’s command off.',
      'A diesel kicks back: decompress it where it can be.',
    ],
    outcomes: [
      { id: 'turns', name: 'Turns as an engine of its size does', word: 'sound' },
      { id: 'heavy', name: 'Heavy, or catches at one place', word: 'doubtful' },
      { id: 'stuck', name: 'Doesn’t turn', word: 'failed' },
    ],
    usual: [0.95, 0.045, 0.005],
    odds: { 'engine-tight': [0.15, 0.7, 0.15] },
  }),
  findingCheck({
    id: 'belt',
    name: 'Belt by hand and eye',
    assembly: 'parked',
    minutes: 1,
    how: 'Tension, glaze, cracks; try to turn the unit’s pulley against the belt.',
    tells: 'slip, without an instrument',
    cautions: ['Key out of the lock.'],
    outcomes: [
      { id: 'tight', name: 'Tight and clean', word: 'sound' },
      { id: 'glazed', name: 'Glazed or oily', word: 'doubtful' },
      { id: 'slack', name: 'Slack, or the pulley turns', word: 'failed' },
    ],
    usual: [0.87, 0.11, 0.02],
    odds: { 'belt-slip': [0.08, 0.3, 0.62] },
  }),
  findingCheck({
    id: 'clutch',
    name: 'One-way clutch pulley by hand',
    assembly: 'parked',
    minutes: 1,
    how: 'Belt off, rotor held: it turns free one way and locks the other.',
    tells: 'a pulley that whines, slips or chatters',
    cautions: ['Key out of the lock.'],
    outcomes: [
      { id: 'solid', name: 'Solid pulley', word: 'sound' },
      { id: 'right', name: 'Free one way, locks the other', word: 'sound' },
      { id: 'free', name: 'Free both ways', word: 'failed' },
      { id: 'locked', name: 'Locked both ways', word: 'failed' },
    ],
    usual: [0.57, 0.4, 0.015, 0.015],
    odds: {
      ...ofUnit('clutch'),
    },
  }),
  findingCheck({
    id: 'battery-taken-off',
    name: 'Was the battery taken off while it ran?',
    assembly: '',
    minutes: 0.2,
    how: 'Ask. It is not a test, and nobody should do it again.',
    tells: 'what may have been broken',
    cautions: [
      'Never take the battery off a running engine: the unit’s volts leap (load dump) and break regulator, diodes and modules.',
    ],
    outcomes: [
      { id: 'no', name: 'No', word: 'sound' },
      { id: 'yes', name: 'Yes', word: 'doubtful' },
    ],
    usual: [0.96, 0.04],
    odds: {
      ...ofUnit('battery-taken-off'),
    },
  }),
];
