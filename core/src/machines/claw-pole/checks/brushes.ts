import { type Check, findingCheck, meterCheck, type PresentFault } from '../../../checks/index.ts';
import { holder } from '../circuit.ts';
import type { ClawPole } from '../parameters.ts';

export const brushLength = (machine: ClawPole): Check[] => [
  {
    id: 'brush-length',
    species: 'brush-length',
    place: '',
    name: 'Brush length, the shorter one',
    assembly: 'opened',
    upTo: 'unsoldered',
    minutes: 0.5,
    unit: 'millimetres',
    how: 'Measure how far the shorter brush stands proud of its holder.',
    tells: 'wear, before it loses contact',
    cautions: [],
    method: {
      kind: 'length',
      fresh: machine.brushNewMillimetres,
      least: machine.brushLeastMillimetres,
      expected: (faults) => brushExpected(machine, faults),
    },
  },
];

/** A sound brush lies anywhere between least and new, a worn one below least [from memory]. */
function brushExpected(machine: ClawPole, faults: readonly PresentFault[]): { mean: number; sigma: number } {
  const { brushNewMillimetres: fresh, brushLeastMillimetres: least } = machine;
  return faults.some((fault) => fault.species === 'brush-worn')
    ? { mean: least * 0.55, sigma: least * 0.22 }
    : { mean: (fresh + least) / 2 + 0.2 * (fresh - least), sigma: (fresh - least) * 0.3 };
}

export const brushesByEye = (): Check[] => [
  findingCheck({
    id: 'brushes-by-eye',
    name: 'Brushes by eye and finger',
    assembly: 'opened',
    upTo: 'unsoldered',
    minutes: 0.3,
    how: 'Push each brush in and let go: it must slide and come back; look at its face.',
    tells: 'a brush that sticks, a spring gone soft',
    outcomes: [
      { id: 'free', name: 'Free, springs press', word: 'sound' },
      {
        id: 'sticks',
        name: 'Sticks or hardly presses',
        word: 'failed',
        then: 'Free it in its holder, renew the spring; look at the ring.',
      },
      { id: 'chipped', name: 'Chipped or burnt', word: 'failed', then: 'A new brush set; look at the rings.' },
    ],
    // Odds from memory.
    usual: [0.986, 0.007, 0.007],
    odds: {
      'brush-contact': [0.1, 0.7, 0.2],
      'brush-worn': [0.35, 0.35, 0.3],
      'rings-dirty': [0.9, 0.07, 0.03],
      'rings-gouged': [0.7, 0.1, 0.2],
    },
  }),
];

export const ringsByEye = (): Check[] => [
  {
    id: 'rings-by-eye',
    species: 'rings-by-eye',
    place: '',
    name: 'Slip rings by eye',
    assembly: 'opened',
    upTo: 'unsoldered',
    minutes: 0.3,
    unit: 'millimetres',
    how: 'Look at both tracks all the way round.',
    tells: 'dirt, burning, grooves',
    cautions: [],
    method: {
      kind: 'finding',
      outcomes: [
        { id: 'smooth', name: 'Smooth and bright', word: 'sound' },
        {
          id: 'dull',
          name: 'Dull or dirty',
          word: 'doubtful',
          then: 'Clean them, and measure through the brushes again.',
        },
        {
          id: 'burnt',
          name: 'Gouged, pitted or burnt',
          word: 'failed',
          then: 'Turn them down, not below the least diameter; new brushes with it.',
        },
      ],
      chances: (faults) => {
        const has = (species: string) => faults.some((fault) => fault.species === species);
        if (has('rings-gouged')) return [0.01, 0.04, 0.95];
        if (has('rings-dirty')) return [0.1, 0.89, 0.01];
        if (has('brush-worn') || has('brush-contact')) return [0.68, 0.317, 0.003];
        return [0.8, 0.199, 0.001];
      },
    },
  },
];

/** Past the rotor, whose own spread hides tenths of an ohm. */
export const brushToRing = (): Check[] =>
  ['1', '2'].map((brush) =>
    meterCheck({
      species: 'brush-ring',
      place: brush,
      name: `Brush ${brush} to its ring`,
      assembly: 'opened',
      upTo: 'unsoldered',
      minutes: 0.5,
      setup: { function: 'ohms', red: holder(brush), black: `ring-${brush}`, held: 'lowest' },
      how: `Holder held to the rings so that the springs press; one probe on the terminal of brush ${brush}, the other on its ring. Lowest range.`,
      tells: 'which contact is bad: both alike is the rings, one of them its brush',
    }),
  );

/** After turning, at the thinnest place [spread of sound rings from memory]. */
export const ringDiameter = ({ ringLeastMillimetres: least }: ClawPole): Check[] =>
  least === undefined
    ? []
    : [
        {
          id: 'ring-diameter',
          species: 'ring-diameter',
          place: '',
          name: 'Slip ring diameter, the thinner one',
          assembly: 'opened',
          upTo: 'unsoldered',
          minutes: 0.5,
          unit: 'millimetres',
          how: 'Caliper across the track where the brush runs, after turning if it was turned.',
          tells: 'whether the rings may run again',
          cautions: [],
          method: {
            kind: 'length',
            least,
            expected: (faults) =>
              faults.some(({ species }) => species === 'rings-worn')
                ? { mean: least - 0.4, sigma: 0.3 }
                : { mean: least + 0.8, sigma: 0.5 },
          },
        },
      ];
