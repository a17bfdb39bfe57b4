import { type Check, meterCheck } from '../../../checks/index.ts';
import { megohms, megohmsHow } from './megohms.ts';

/** Output post to case, both ways, nothing taken off. */
export const bridge = (): Check[] => [
  meterCheck({
    species: 'bridge-forward',
    name: 'Case to output post, diode test',
    assembly: 'closed',
    minutes: 0.5,
    setup: { function: 'diode', red: 'case', black: 'output' },
    how: 'Red probe on the case, black on the output post.',
    tells: 'two junctions in series: a shorted diode halves it',
  }),
  meterCheck({
    species: 'bridge-reverse',
    name: 'Output post to case, diode test',
    assembly: 'closed',
    minutes: 0.5,
    setup: { function: 'diode', red: 'output', black: 'case' },
    how: 'Red probe on the output post, black on the case.',
    tells: 'a reading here means two faults, the insulator or the capacitor',
  }),
  meterCheck({
    species: 'bridge-reverse-ohms',
    name: 'Output post to case, ohms',
    assembly: 'closed',
    minutes: 0.5,
    setup: { function: 'ohms', red: 'output', black: 'case', held: megohms },
    isolation: true,
    how: `Red probe on the output post, black on the case; ${megohmsHow}. Let the reading settle.`,
    tells: 'leakage that the diode test is blind to',
  }),
];
