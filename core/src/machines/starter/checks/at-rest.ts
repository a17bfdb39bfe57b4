import { type Check, findingCheck, meterCheck } from '../../../checks/index.ts';
import { hasMagnets, hasSolenoid, layoutNames, type Starter } from '../parameters.ts';

/** From the megohms on a leak is no winding's. */
const megohms = { fullScale: 1e6, freeBelow: 1e5 } as const;
const battery = 'Battery off: no clip near it while you probe.';

/** Nothing taken off: a probe at each post, a hand at the pinion. Odds throughout are from memory. */
export const closedChecks = (machine: Starter): Check[] => [
  findingCheck({
    id: 'terminals-by-eye',
    name: 'Posts, motor lead and plug by eye',
    assembly: 'closed',
    upTo: 'lead-off',
    minutes: 0.2,
    how: 'Both studs and the lead between solenoid and motor: pull gently, look for heat marks.',
    tells: 'a burnt stud, a loose lead',
    outcomes: [
      { id: 'clean', name: 'Clean and tight', word: 'sound' },
      { id: 'dirty', name: 'Corroded', word: 'doubtful', then: 'Clean to bright metal before you believe a drop.' },
      { id: 'burnt', name: 'Burnt or loose', word: 'failed', then: 'Renew the stud or the lead, tighten the joint.' },
    ],
    usual: [0.868, 0.13, 0.002],
    odds: { 'terminals-burnt': [0.06, 0.24, 0.7], 'main-case': [0.6, 0.2, 0.2], 'contacts-burnt': [0.8, 0.18, 0.02] },
  }),
  findingCheck({
    id: 'smell',
    name: 'Smell at the brush end',
    assembly: 'closed',
    upTo: 'cover-off',
    minutes: 0.1,
    how: 'Nose to the brush end and to the solenoid.',
    tells: 'a winding that has been too hot',
    outcomes: [
      { id: 'none', name: 'Nothing burnt', word: 'sound' },
      { id: 'burnt', name: 'Burnt', word: 'doubtful', then: 'Look for what cooked: armature, field, solenoid.' },
    ],
    usual: [0.95, 0.05],
    odds: {
      'armature-turns': [0.4, 0.6],
      'armature-core': [0.5, 0.5],
      'armature-open': [0.5, 0.5],
      'field-turns': [0.35, 0.65],
      'field-case': [0.55, 0.45],
      'hold-in-turns': [0.4, 0.6],
      'pull-in-turns': [0.4, 0.6],
      'contacts-welded': [0.5, 0.5],
      'terminals-burnt': [0.6, 0.4],
    },
  }),
  findingCheck({
    id: 'pinion-by-eye',
    name: 'Pinion by eye',
    assembly: 'closed',
    upTo: 'cover-off',
    minutes: 0.2,
    how: 'Every tooth, both flanks; count them against the plate’s model.',
    tells: 'chipped or milled teeth',
    outcomes: [
      { id: 'whole', name: 'Whole', word: 'sound' },
      { id: 'worn', name: 'Chipped, milled or worn', word: 'failed', then: 'A new drive; look at the ring gear too.' },
    ],
    usual: [0.998, 0.002],
    odds: { 'pinion-chipped': [0.03, 0.97], 'drive-slips': [0.95, 0.05], 'fork-worn': [0.9, 0.1] },
  }),
  findingCheck({
    id: 'case-by-eye',
    name: 'Nose and frame by eye',
    assembly: 'closed',
    upTo: 'cover-off',
    minutes: 0.2,
    how: 'Nose, flange and end frame, all round.',
    tells: 'cracks',
    outcomes: [
      { id: 'whole', name: 'Whole', word: 'sound' },
      { id: 'cracked', name: 'Cracked', word: 'failed', then: 'Another nose or end frame: it carries a bush.' },
    ],
    usual: [0.9985, 0.0015],
    odds: { 'case-cracked': [0.05, 0.95] },
  }),
  findingCheck({
    id: 'drive-by-hand',
    name: hasSolenoid(machine) ? 'Drive clutch by hand' : 'Inertia drive by hand',
    assembly: 'closed',
    upTo: 'cover-off',
    minutes: 0.3,
    how: hasSolenoid(machine)
      ? 'Turn the pinion both ways: one way it runs free and smooth, the other it takes the armature with it.'
      : 'Spin the pinion up its thread and let go: it must run out and come back.',
    tells: 'a drive that slips, locks or sticks',
    cautions: hasMagnets(machine) ? ['Never tap it to free it: magnets crack.'] : [],
    outcomes: [
      { id: 'right', name: hasSolenoid(machine) ? 'Free one way, locks the other' : 'Out and back', word: 'sound' },
      {
        id: 'slips',
        name: hasSolenoid(machine) ? 'Free both ways' : 'Sticks on its thread',
        word: 'failed',
        then: hasSolenoid(machine)
          ? 'A new drive: it slips under load.'
          : 'Clean it dry, no oil; renew it if it still sticks.',
      },
      {
        id: 'locked',
        name: hasSolenoid(machine) ? 'Locked both ways' : 'Spring gone',
        word: 'failed',
        then: 'A new drive; the armature may have been driven to bits: look at it.',
      },
    ],
    usual: [0.996, 0.002, 0.002],
    odds: {
      'drive-slips': [0.25, 0.74, 0.01],
      'drive-seized': [0.06, 0.02, 0.92],
      'pinion-chipped': [0.97, 0.02, 0.01],
    },
  }),
  findingCheck({
    id: 'free-turning',
    name: 'Armature turned by hand',
    assembly: 'closed',
    upTo: 'lead-off',
    minutes: 0.3,
    how: hasSolenoid(machine)
      ? 'Lever the pinion out and turn it in its driving direction: feel for drag, listen for rubbing; rock the shaft.'
      : 'Turn the shaft: feel for drag, listen for rubbing; rock it.',
    tells: 'bushes, a rubbing armature, a seized one',
    outcomes: [
      { id: 'free', name: 'Free, no play', word: 'sound' },
      { id: 'stiff', name: 'Stiff or rubs', word: 'failed', then: 'Bushes, or armature on the poles: open it.' },
      { id: 'play', name: 'Play in the bushes', word: 'failed', then: 'New bushes, before it rubs.' },
      { id: 'seized', name: 'Doesn’t turn', word: 'failed', then: 'Don’t feed it. Open it.' },
    ],
    usual: [0.975, 0.02, 0.004, 0.001],
    odds: {
      'bushes-worn': [0.2, 0.44, 0.31, 0.05],
      'shaft-rubs': [0.15, 0.7, 0.07, 0.08],
      'gears-worn': [0.55, 0.4, 0.03, 0.02],
    },
  }),
  ...(hasSolenoid(machine)
    ? [
        findingCheck({
          id: 'plunger-by-hand',
          name: 'Plunger by hand',
          assembly: 'closed',
          upTo: 'cover-off',
          minutes: 0.2,
          how: 'Lever the pinion out to its stop and let go.',
          tells: 'a plunger that sticks, a spring or fork that is gone',
          outcomes: [
            { id: 'right', name: 'Out and snaps back', word: 'sound' },
            {
              id: 'sticks',
              name: 'Sticks or comes back slowly',
              word: 'failed',
              then: hasMagnets(machine)
                ? 'Clean it. Never tap a starter with magnets.'
                : 'A light tap may free it on the vehicle; it still needs work.',
            },
            { id: 'loose', name: 'Loose, doesn’t follow', word: 'failed', then: 'Fork or its pin: open it.' },
          ],
          usual: [0.985, 0.01, 0.005],
          odds: { 'plunger-sticks': [0.15, 0.83, 0.02], 'fork-worn': [0.3, 0.1, 0.6] },
        }),
      ]
    : []),
  meterCheck({
    species: 'main-to-motor',
    name: 'Main terminal to motor terminal, ohms',
    assembly: 'closed',
    minutes: 0.4,
    setup: { function: 'ohms', red: 'main', black: 'motor', held: megohms },
    isolation: true,
    how: 'Red probe on the main terminal, black on the motor terminal. At rest the contacts stand apart.',
    tells: 'welded contacts',
    cautions: [battery],
  }),
  meterCheck({
    species: 'main-to-case',
    name: 'Main terminal to case, ohms',
    assembly: 'closed',
    minutes: 0.4,
    setup: { function: 'ohms', red: 'main', black: 'case', held: megohms },
    isolation: true,
    how: 'Red probe on the main terminal, black on bare metal of the case.',
    tells: 'a short that the battery would feed at once',
    cautions: [battery],
  }),
  meterCheck({
    species: 'motor-to-case',
    name: 'Motor terminal to case, ohms',
    assembly: 'closed',
    minutes: 0.4,
    setup: { function: 'ohms', red: 'motor', black: 'case' },
    how: hasSolenoid(machine)
      ? 'Red probe on the motor terminal, black on the case; turn the armature and watch. An open motor shows the two solenoid windings in series, not OL.'
      : 'Red probe on the motor terminal, black on the case; turn the armature and watch.',
    tells: `an open motor (${layoutNames[machine.layout]})`,
    cautions: [battery],
  }),
];

/** The motor's lead off the solenoid: each winding by itself, and the solenoid moved by a supply. */
export function leadOffChecks(machine: Starter): Check[] {
  const solenoid = hasSolenoid(machine);
  return [
    ...(solenoid
      ? [
          meterCheck({
            species: 'pull-in',
            name: 'Pull-in winding: command to motor terminal',
            assembly: 'lead-off',
            upTo: 'cover-off',
            minutes: 0.4,
            setup: { function: 'ohms', red: 'command', black: 'motor' },
            how: 'Motor lead off its stud. Red probe on the command terminal, black on the stud.',
            tells: 'the winding that throws the pinion',
            cautions: [battery],
          }),
        ]
      : []),
    meterCheck({
      species: 'hold-in',
      name: solenoid ? 'Hold-in winding: command to case' : 'Switch coil: command to case',
      assembly: 'lead-off',
      upTo: 'cover-off',
      minutes: 0.4,
      setup: { function: 'ohms', red: 'command', black: 'case' },
      how: 'Motor lead off its stud. Red probe on the command terminal, black on the case.',
      tells: solenoid ? 'the winding that keeps it there' : 'the coil that closes the switch',
      cautions: [battery],
    }),
    meterCheck({
      species: 'lead-to-case',
      name: 'Motor lead to case, ohms',
      assembly: 'lead-off',
      minutes: 0.4,
      setup: { function: 'ohms', red: 'lead', black: 'case' },
      how: 'Red probe on the motor’s lead, black on the case; turn the armature and watch.',
      tells: 'brush, field or armature open, without the solenoid beside it',
      cautions: [battery],
    }),
    ...(solenoid ? [solenoidAlone(), solenoidVolts(machine), contactsByEye()] : []),
  ];
}

/** Wired so that a sound one passes: the pull-in winding returns by the motor's stud, which hangs free otherwise. */
const solenoidAlone = (): Check =>
  findingCheck({
    id: 'solenoid-alone',
    name: 'Solenoid alone: throws, holds, lets go',
    assembly: 'lead-off',
    upTo: 'cover-off',
    minutes: 1,
    how: 'Main terminal not fed, motor lead off. Plus to command, minus to case AND to the motor stud: it must throw. Minus off the stud: it must hold. Command off: it must let go.',
    tells: 'solenoid and fork without the motor',
    cautions: [
      'Main terminal not fed: with it fed and the stud grounded, closing contacts are a dead short.',
      'Fingers off the pinion; 5 s at most.',
    ],
    outcomes: [
      { id: 'right', name: 'Throws, holds, lets go', word: 'sound' },
      { id: 'no-throw', name: 'Doesn’t throw', word: 'failed', then: 'Pull-in winding, or it sticks.' },
      { id: 'no-hold', name: 'Throws, doesn’t hold', word: 'failed', then: 'Hold-in winding: chatter on the vehicle.' },
      { id: 'stays', name: 'Doesn’t let go', word: 'failed', then: 'Plunger or spring; it would run on.' },
      { id: 'no-pinion', name: 'Clicks, the pinion stays', word: 'failed', then: 'Fork or its pin.' },
    ],
    usual: [0.985, 0.005, 0.004, 0.003, 0.003],
    odds: {
      'pull-in-open': [0.01, 0.96, 0.01, 0.01, 0.01],
      'pull-in-turns': [0.6, 0.35, 0.03, 0.01, 0.01],
      'hold-in-open': [0.01, 0.03, 0.94, 0.01, 0.01],
      'hold-in-turns': [0.55, 0.05, 0.38, 0.01, 0.01],
      'plunger-sticks': [0.15, 0.45, 0.02, 0.37, 0.01],
      'fork-worn': [0.3, 0.1, 0.01, 0.02, 0.57],
    },
  });

/** Of the rated volts: more to pull in, or more to hold, and it fails on a cold morning [common practice, no source]. */
const solenoidShares = { pullIn: 2 / 3, hold: 1 / 2 } as const;

const solenoidVolts = ({ ratedVolts }: Starter): Check =>
  findingCheck({
    id: 'solenoid-volts',
    name: 'Volts at which it pulls in and lets go',
    assembly: 'lead-off',
    upTo: 'cover-off',
    minutes: 1,
    unit: 'volts',
    watched: {
      asks: 'the volts at which it lets go and at which it throws',
      says: (seen) => {
        if (Math.max(...seen) > solenoidShares.pullIn * ratedVolts) return 'late';
        return Math.min(...seen) > solenoidShares.hold * ratedVolts ? 'drops' : 'right';
      },
    },
    how: `Wired as alone. Raise the supply slowly till it throws, take the stud’s minus off, lower it till it lets go. Type the lower and the higher volts: at most ${(solenoidShares.pullIn * ratedVolts).toFixed(0)} V to throw, at most ${(solenoidShares.hold * ratedVolts).toFixed(0)} V to hold.`,
    tells: 'a weak winding or a plunger that drags',
    cautions: ['The windings heat: a few seconds, then a minute’s rest.'],
    outcomes: [
      { id: 'right', name: 'Early enough, holds low', word: 'sound' },
      { id: 'late', name: 'Pulls in too late', word: 'failed', then: 'Plunger, or pull-in winding.' },
      { id: 'drops', name: 'Lets go too early', word: 'failed', then: 'Hold-in winding.' },
    ],
    usual: [0.97, 0.02, 0.01],
    odds: {
      'pull-in-open': [0.01, 0.98, 0.01],
      'pull-in-turns': [0.5, 0.47, 0.03],
      'hold-in-open': [0.01, 0.04, 0.95],
      'hold-in-turns': [0.4, 0.05, 0.55],
      'plunger-sticks': [0.3, 0.68, 0.02],
      'fork-worn': [0.7, 0.28, 0.02],
    },
  });

const contactsByEye = (): Check =>
  findingCheck({
    id: 'contacts-by-eye',
    name: 'Solenoid contacts by eye',
    assembly: 'lead-off',
    upTo: 'opened',
    minutes: 2,
    how: 'Solenoid cap off, where it comes off: both studs and the disc.',
    tells: 'pitted, burnt or welded contacts',
    outcomes: [
      { id: 'bright', name: 'Bright or evenly grey', word: 'sound' },
      {
        id: 'pitted',
        name: 'Pitted or burnt away',
        word: 'failed',
        then: 'Contacts and disc as a set, or the solenoid.',
      },
      {
        id: 'welded',
        name: 'Welded or stuck',
        word: 'failed',
        then: 'A new solenoid; find what made it draw so much.',
      },
    ],
    usual: [0.95, 0.047, 0.003],
    odds: { 'contacts-burnt': [0.05, 0.93, 0.02], 'contacts-welded': [0.02, 0.13, 0.85] },
  });
