import { type Check, meterCheck, type PresentFault } from '../../../checks/index.ts';
import { supplyNode } from '../circuit.ts';
import type { ClawPole } from '../parameters.ts';

/** The field circuit, closed: from one brush terminal to the other, through rings and rotor. */
export function fieldThroughBrushes(machine: ClawPole): Check[] {
  const supplySide = machine.regulatorSide === 'supply';
  const red = supplySide ? 'field' : supplyNode(machine);
  const black = supplySide ? 'case' : 'field';
  const where = supplySide
    ? 'Red probe on the field terminal, black on the case'
    : 'Red probe on the field supply terminal, black on the field terminal';
  return [
    meterCheck({
      species: 'field-ohms',
      name: 'Field through the brushes, shaft at rest',
      assembly: 'closed',
      minutes: 0.5,
      setup: { function: 'ohms', red, black },
      how: `${where}; shaft at rest.`,
      tells: 'rotor, rings and brushes in one go',
    }),
    {
      id: 'field-turning',
      species: 'field-turning',
      place: '',
      name: 'Field through the brushes while turning',
      assembly: 'closed',
      minutes: 0.5,
      unit: 'ohms',
      how: `${where}; turn the shaft slowly by hand and watch the reading: type the lowest and the highest, like 3.1 3.4, or choose.`,
      tells: 'a brush that loses contact at some angles',
      cautions: ['No sleeve, ring or glove near the pulley.'],
      method: {
        kind: 'finding',
        outcomes: [
          { id: 'steady', name: 'Steady', word: 'sound' },
          { id: 'jumps', name: 'Jumps about', word: 'doubtful' },
          { id: 'lost', name: 'Lost at some angles', word: 'failed' },
          { id: 'never', name: 'No reading at all', word: 'failed' },
        ],
        chances: turningChances,
        watched: { asks: 'the lowest and the highest reading', says: turningSeen },
      },
    },
  ];
}

/** A sound field moves by less than a tenth and the meter's own unrest [common practice, no source]. */
function turningSeen(seen: readonly number[]): string {
  const [low, high] = [Math.min(...seen), Math.max(...seen)];
  if (low === Infinity) return 'never';
  if (high === Infinity) return 'lost';
  return high > 1.1 * low + 0.2 ? 'jumps' : 'steady';
}

/** Odds of what the needle does while the shaft turns [from memory]. */
function turningChances(faults: readonly PresentFault[]): readonly number[] {
  const has = (species: string) => faults.find((fault) => fault.species === species);
  if (has('rotor-open') || (has('brush-worn')?.severity ?? 0) > 1e5) return [0.01, 0.02, 0.02, 0.95];
  if (has('brush-contact')) return [0.05, 0.35, 0.6, 0];
  if (has('brush-worn')) return [0.2, 0.4, 0.35, 0.05];
  if (has('rings-dirty')) return [0.3, 0.6, 0.1, 0];
  if (has('rings-gouged')) return [0.5, 0.4, 0.1, 0];
  return [0.94, 0.05, 0.01, 0];
}
