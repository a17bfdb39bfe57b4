import { type Check, findingCheck, meterCheck, type PresentFault } from '../../../checks/index.ts';
import { seriesOhms } from '../../../instruments/index.ts';
import { hasMagnets, type Starter } from '../parameters.ts';

const megohms = { fullScale: 1e6, freeBelow: 1e5 } as const;

/** A sound brush lies anywhere between least and new, a worn one below least [from memory]. */
function brushExpected({ brushNewMillimetres: fresh, brushLeastMillimetres: least }: Starter) {
  return (faults: readonly PresentFault[]) =>
    faults.some(({ species }) => species === 'brush-worn')
      ? { mean: least * 0.62, sigma: least * 0.22 }
      : { mean: (fresh + least) / 2 + 0.2 * (fresh - least), sigma: (fresh - least) * 0.3 };
}

/**
 * What the commutator's end shows once its cover is off and the brushes are lifted, the armature still in its place. Odds
 * throughout are from memory.
 */
export const coverOffChecks = (machine: Starter): Check[] => [
  {
    id: 'brush-length',
    species: 'brush-length',
    place: '',
    name: 'Brush length, the shortest one',
    assembly: 'cover-off',
    upTo: 'opened',
    minutes: 0.5,
    unit: 'millimetres',
    how: 'Caliper along the shortest brush, its worn face to its end.',
    tells: 'wear, before it loses contact',
    cautions: [],
    method: {
      kind: 'length',
      fresh: machine.brushNewMillimetres,
      least: machine.brushLeastMillimetres,
      expected: brushExpected(machine),
    },
  },
  findingCheck({
    id: 'brushes-by-eye',
    name: 'Brushes and springs by eye',
    assembly: 'cover-off',
    upTo: 'opened',
    minutes: 0.3,
    how: 'Slide each in its holder, lift each spring, look at each face and pigtail.',
    tells: 'a brush that sticks, a spring gone blue',
    outcomes: [
      { id: 'free', name: 'Free, springs press', word: 'sound' },
      { id: 'sticks', name: 'Sticks, burnt or spring soft', word: 'failed', then: 'New brushes and springs as a set.' },
    ],
    usual: [0.985, 0.015],
    odds: { 'brush-worn': [0.3, 0.7], 'commutator-dirty': [0.8, 0.2], 'armature-open': [0.75, 0.25] },
  }),
  findingCheck({
    id: 'commutator-by-eye',
    name: 'Commutator by eye',
    assembly: 'cover-off',
    upTo: 'opened',
    minutes: 0.3,
    how: 'All bars round: colour, grooves, mica between them.',
    tells: 'dirt, high mica, a bar burnt by an open coil',
    outcomes: [
      { id: 'brown', name: 'Even and brown', word: 'sound' },
      { id: 'dirty', name: 'Dirty, grooved or mica high', word: 'doubtful', then: 'Turn it true, undercut the mica.' },
      { id: 'bar', name: 'One or two bars burnt', word: 'failed', then: 'An open coil behind it: bar to bar.' },
      { id: 'thrown', name: 'Solder thrown or bars lifted', word: 'failed', then: 'Another armature.' },
    ],
    usual: [0.84, 0.15, 0.007, 0.003],
    odds: {
      'commutator-dirty': [0.08, 0.88, 0.03, 0.01],
      'armature-open': [0.08, 0.12, 0.65, 0.15],
      'armature-turns': [0.6, 0.25, 0.1, 0.05],
      'brush-worn': [0.5, 0.47, 0.02, 0.01],
    },
  }),
  meterCheck({
    species: 'bar-to-shaft',
    name: 'Commutator to shaft, ohms',
    assembly: 'cover-off',
    upTo: 'opened',
    minutes: 0.4,
    setup: { function: 'ohms', red: 'bar', black: 'shaft', held: megohms },
    isolation: true,
    how: 'All brushes lifted off the commutator. Red probe on a bar, black on the bare shaft.',
    tells: 'an armature winding that touches its core',
  }),
  ...(hasMagnets(machine) ? [] : fieldCoils()),
];

/** Volts under current: a series field has milliohms, which no ohmmeter of a bench tells. */
const fieldCoils = (): Check[] => [
  meterCheck({
    species: 'field-drop',
    name: 'Field coils under 5 A, volts across',
    assembly: 'cover-off',
    upTo: 'opened',
    minutes: 1,
    setup: {
      function: 'drop',
      red: 'lead',
      black: 'field-end',
      feed: { plus: 'lead', minus: 'field-end', seriesOhms: seriesOhms.fiveAmps },
    },
    how: `Bench supply through ${seriesOhms.fiveAmps} Ω in series into the lead, out at the insulated brush, lifted; probes inside the clips.`,
    tells: 'shorted turns in the field',
    cautions: ['The resistor gets hot: a few seconds.'],
  }),
  meterCheck({
    species: 'field-to-case',
    name: 'Field coils to case, ohms',
    assembly: 'cover-off',
    upTo: 'opened',
    minutes: 0.4,
    setup: { function: 'ohms', red: 'field-end', black: 'case', held: megohms },
    isolation: true,
    how: 'Insulated brushes clear of everything. Red probe on one, black on bare metal of the frame.',
    tells: 'a field that touches its case',
  }),
];
