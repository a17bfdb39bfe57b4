import type { Check, PresentFault } from '../../../checks/index.ts';
import type { ClawPole } from '../parameters.ts';

export const brushLength = (machine: ClawPole): Check[] => [
  {
    id: 'brush-length',
    species: 'brush-length',
    place: '',
    name: 'Brush length, the shorter one',
    assembly: 'opened',
    minutes: 0.5,
    unit: 'millimetres',
    how: 'Measure how far the shorter brush stands proud of its holder.',
    tells: 'wear, before it loses contact',
    cautions: [],
    method: {
      kind: 'length',
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

export const ringsByEye = (): Check[] => [
  {
    id: 'rings-by-eye',
    species: 'rings-by-eye',
    place: '',
    name: 'Slip rings by eye',
    assembly: 'opened',
    minutes: 0.3,
    unit: 'millimetres',
    how: 'Look at both tracks all the way round.',
    tells: 'dirt, burning, grooves',
    cautions: [],
    method: {
      kind: 'finding',
      outcomes: [
        { id: 'smooth', name: 'Smooth and bright', word: 'sound' },
        { id: 'dull', name: 'Dull or dirty', word: 'doubtful' },
        { id: 'burnt', name: 'Gouged, pitted or burnt', word: 'failed' },
      ],
      chances: (faults) => {
        const has = (species: string) => faults.some((fault) => fault.species === species);
        if (has('rings-dirty')) return [0.05, 0.5, 0.45];
        if (has('brush-worn') || has('brush-contact')) return [0.6, 0.3, 0.1];
        return [0.78, 0.2, 0.02];
      },
    },
  },
];
