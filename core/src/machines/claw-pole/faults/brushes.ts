import type { Fault } from '../../family.ts';
import type { ClawPole } from '../parameters.ts';

/** Severity: resistance added by the brush that no longer presses. */
export const brushWorn = (): Fault[] => [
  {
    id: 'brush-worn',
    species: 'brush-worn',
    place: '',
    part: 'brushes',
    name: 'brush worn out',
    weight: 12,
    severity: { unit: 'ohms', grades: [1, 1e3, 1e6, 1e9] },
    edits: (ohms) => [{ element: 'brush:1', add: ohms }],
  },
];

/** Touches on most of the turn: at rest the reading is usually right, turning shows it. */
export const brushContact = (): Fault[] => [
  {
    id: 'brush-contact',
    species: 'brush-contact',
    place: '',
    part: 'brushes',
    name: 'brush loses contact at some shaft angles',
    weight: 5,
    severity: { unit: 'ohms', grades: [0.1, 1] },
    edits: (ohms) => [{ element: 'brush:2', add: ohms }],
    repair: 'free the brushes in their holder and renew the springs',
  },
];

const mendRings = 'clean the slip rings or turn them down to the least diameter';

/** Severity: resistance added in all; a film on both rings alike. */
export const ringsDirty = (): Fault[] => [
  {
    id: 'rings-dirty',
    species: 'rings-dirty',
    place: '',
    part: 'rings',
    name: 'slip rings dirty',
    weight: 4.5,
    severity: { unit: 'ohms', grades: [0.3, 1.5, 7.5] },
    edits: (ohms) => [
      { element: 'brush:1', add: ohms / 2 },
      { element: 'brush:2', add: ohms / 2 },
    ],
    repair: mendRings,
  },
];

/** Grooves, pits and burn marks: they eat brushes whatever the meter says. */
export const ringsGouged = (): Fault[] => [
  {
    id: 'rings-gouged',
    species: 'rings-gouged',
    place: '',
    part: 'rings',
    name: 'slip rings gouged or burnt',
    weight: 2,
    severity: { unit: 'none', grades: [1] },
    edits: () => [],
    repair: mendRings,
  },
];

/** Turned or worn below the least diameter: nothing left to clean. */
export const ringsWorn = (machine: ClawPole): Fault[] =>
  machine.ringLeastMillimetres === undefined
    ? []
    : [
        {
          id: 'rings-worn',
          species: 'rings-worn',
          place: '',
          part: 'rings',
          name: 'slip rings below their least diameter',
          weight: 0.8,
          severity: { unit: 'none', grades: [1] },
          edits: () => [],
        },
      ];
