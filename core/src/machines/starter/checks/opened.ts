import { type Check, findingCheck } from '../../../checks/index.ts';
import { hasGears, hasMagnets, hasSolenoid, type Starter } from '../parameters.ts';

/** Each piece in the hand. Odds throughout are from memory. */
export const openedChecks = (machine: Starter): Check[] => [
  findingCheck({
    id: 'commutator-run-out',
    name: 'Commutator run-out',
    assembly: 'opened',
    minutes: 1,
    how: 'Armature on V-blocks, dial on the commutator: at most 0.05 mm, undercut at least 0.4 mm.',
    tells: 'whether turning is needed',
    outcomes: [
      { id: 'true', name: 'True, mica undercut', word: 'sound' },
      { id: 'out', name: 'Runs out, or mica high', word: 'failed', then: 'Turn it, undercut, deburr.' },
    ],
    usual: [0.95, 0.05],
    odds: { 'commutator-dirty': [0.2, 0.8], 'shaft-rubs': [0.45, 0.55] },
  }),
  ...(machine.commutatorLeastMillimetres === undefined ? [] : [commutatorDiameter(machine.commutatorLeastMillimetres)]),
  findingCheck({
    id: 'bar-to-bar',
    name: 'Bar to bar',
    assembly: 'opened',
    minutes: 1.5,
    how: 'A few amps through opposite bars, millivolts between neighbours all round; or the lowest ohms bar to bar.',
    tells: 'an open coil reads high, a shorted one low',
    outcomes: [
      { id: 'alike', name: 'All alike', word: 'sound' },
      {
        id: 'high',
        name: 'One pair high',
        word: 'failed',
        then: 'Coil open: resolder its riser, else another armature.',
      },
      { id: 'low', name: 'One pair low', word: 'failed', then: 'Coil shorted: clean between the bars, growler again.' },
    ],
    usual: [0.98, 0.01, 0.01],
    odds: { 'armature-open': [0.04, 0.95, 0.01], 'armature-turns': [0.2, 0.01, 0.79] },
  }),
  findingCheck({
    id: 'growler',
    name: 'Growler',
    assembly: 'opened',
    minutes: 1,
    how: 'Armature in the growler, a steel strip over each slot, all round.',
    tells: 'shorted armature coils',
    outcomes: [
      { id: 'still', name: 'The strip lies still', word: 'sound' },
      {
        id: 'buzzes',
        name: 'The strip buzzes',
        word: 'failed',
        then: 'A short: clean the bars; if it stays, another armature.',
      },
    ],
    usual: [0.985, 0.015],
    odds: { 'armature-turns': [0.06, 0.94] },
  }),
  ...(hasMagnets(machine) ? magnets() : []),
  findingCheck({
    id: 'armature-by-eye',
    name: 'Armature core and shaft by eye',
    assembly: 'opened',
    minutes: 0.3,
    how: 'Look for bright rub marks on the core; roll the shaft; look at its journals.',
    tells: 'an armature that has rubbed or bent',
    outcomes: [
      { id: 'clean', name: 'No marks, runs true', word: 'sound' },
      { id: 'rubbed', name: 'Rub marks or bent', word: 'failed', then: 'Bushes first; bent: another armature.' },
    ],
    usual: [0.985, 0.015],
    odds: { 'shaft-rubs': [0.05, 0.95], 'bushes-worn': [0.7, 0.3] },
  }),
  findingCheck({
    id: 'bushes-by-hand',
    name: 'Bushes and bearings by hand',
    assembly: 'opened',
    minutes: 0.5,
    how: 'Shaft in each bush: rock it, turn it. Ball bearings between the fingers.',
    tells: 'wear and drag',
    outcomes: [
      { id: 'right', name: 'Snug and free', word: 'sound' },
      { id: 'worn', name: 'Play, dry or rough', word: 'failed', then: 'All bushes of the unit, soaked in oil.' },
    ],
    usual: [0.98, 0.02],
    odds: { 'bushes-worn': [0.06, 0.94], 'shaft-rubs': [0.75, 0.25] },
  }),
  ...(hasGears(machine) ? [gearsByEye()] : []),
  findingCheck({
    id: 'drive-in-hand',
    name: 'Drive in the hand',
    assembly: 'opened',
    minutes: 0.4,
    how: hasSolenoid(machine)
      ? 'Hold the sleeve, twist the pinion hard both ways; look at teeth and at the fork’s groove.'
      : 'Run the pinion along its thread; look at spring and teeth.',
    tells: 'a clutch that slips only under force',
    outcomes: [
      { id: 'right', name: 'Locks one way, free the other', word: 'sound' },
      { id: 'slips', name: 'Slips or sticks', word: 'failed', then: 'A new drive.' },
      {
        id: 'seized',
        name: 'Locked both ways or spring gone',
        word: 'failed',
        then: 'A new drive; look at the armature.',
      },
      { id: 'teeth', name: 'Teeth chipped', word: 'failed', then: 'A new drive; the ring gear too.' },
    ],
    usual: [0.992, 0.003, 0.002, 0.003],
    odds: {
      'drive-slips': [0.1, 0.88, 0.01, 0.01],
      'drive-seized': [0.04, 0.02, 0.93, 0.01],
      'pinion-chipped': [0.03, 0.01, 0.01, 0.95],
    },
  }),
  ...(hasSolenoid(machine) ? [forkByEye()] : []),
];

const commutatorDiameter = (least: number): Check => ({
  id: 'commutator-diameter',
  species: 'commutator-diameter',
  place: '',
  name: 'Commutator diameter, the thinnest place',
  assembly: 'opened',
  minutes: 0.4,
  unit: 'millimetres',
  how: 'Caliper across the track, after turning if it was turned.',
  tells: 'whether it may be turned again',
  cautions: [],
  method: {
    kind: 'length',
    least,
    expected: (faults) =>
      faults.some(({ species }) => species === 'commutator-worn')
        ? { mean: least - 0.4, sigma: 0.3 }
        : { mean: least + 0.9, sigma: 0.5 },
  },
});

const magnets = (): Check[] => [
  findingCheck({
    id: 'magnets-by-eye',
    name: 'Magnets by eye and hand',
    assembly: 'opened',
    minutes: 0.4,
    how: 'Every magnet: cracks, loose edges; an old screwdriver must be pulled alike by each.',
    tells: 'a magnet that is cracked, loose or weak',
    cautions: ['Never tap the frame: magnets crack. Chips cut.'],
    outcomes: [
      { id: 'whole', name: 'Whole, fast, pull alike', word: 'sound' },
      {
        id: 'cracked',
        name: 'Cracked, loose or weak',
        word: 'failed',
        then: 'Another frame: a chip jams the armature.',
      },
    ],
    usual: [0.985, 0.015],
    odds: { 'magnets-weak': [0.12, 0.88] },
  }),
];

const gearsByEye = (): Check =>
  findingCheck({
    id: 'gears-by-eye',
    name: 'Gears by eye',
    assembly: 'opened',
    minutes: 0.4,
    how: 'Every tooth of every gear, the ring, the pins; old grease off.',
    tells: 'a tooth gone, a cracked ring',
    outcomes: [
      { id: 'whole', name: 'Whole', word: 'sound' },
      { id: 'worn', name: 'Worn, cracked or a tooth gone', word: 'failed', then: 'New gears; find the chip.' },
    ],
    usual: [0.99, 0.01],
    odds: { 'gears-worn': [0.04, 0.96] },
  });

const forkByEye = (): Check =>
  findingCheck({
    id: 'fork-by-eye',
    name: 'Fork and its pin by eye',
    assembly: 'opened',
    minutes: 0.2,
    how: 'Prongs, pin, slot of the plunger; the plunger in its bore.',
    tells: 'a fork that no longer throws all the way',
    outcomes: [
      { id: 'whole', name: 'Whole', word: 'sound' },
      { id: 'worn', name: 'Worn or broken', word: 'failed', then: 'A new fork and pin.' },
      { id: 'plunger', name: 'Plunger rough or spring gone', word: 'failed', then: 'Clean the bore, a new spring.' },
    ],
    usual: [0.985, 0.005, 0.01],
    odds: { 'fork-worn': [0.05, 0.93, 0.02], 'plunger-sticks': [0.2, 0.02, 0.78] },
  });
