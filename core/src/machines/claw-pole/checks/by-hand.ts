import { type Check, findingCheck } from '../../../checks/index.ts';

/**
 * Look, turn, listen. Odds throughout are from memory: what is seen broken is broken, but what is broken isn't always
 * seen; a wrong look or key is allowed for everywhere as a slip. What follows from a finding is common practice, no source.
 */
export const byHand = (): Check[] => [
  findingCheck({
    id: 'smell',
    name: 'Smell at the vents',
    assembly: 'closed',
    minutes: 0.1,
    how: 'Nose to the rear vents.',
    tells: 'a winding or a rectifier that has been too hot',
    outcomes: [
      { id: 'none', name: 'Nothing burnt', word: 'sound' },
      {
        id: 'burnt',
        name: 'Burnt',
        word: 'doubtful',
        then: 'Look for what cooked: stator, rectifier, rotor, in that order.',
      },
    ],
    usual: [0.95, 0.05],
    odds: {
      'stator-turns': [0.3, 0.7],
      'stator-core': [0.45, 0.55],
      'diode-shorted': [0.5, 0.5],
      'rotor-turns': [0.6, 0.4],
      'bearing-worn': [0.85, 0.15],
      'terminals-burnt': [0.6, 0.4],
    },
  }),
  findingCheck({
    id: 'bearings-by-hand',
    name: 'Bearings by hand',
    assembly: 'closed',
    minutes: 0.3,
    how: 'Turn the shaft slowly, then push it to and fro and sideways.',
    tells: 'roughness, growl and play',
    cautions: ['No sleeve, ring or glove near the pulley.'],
    outcomes: [
      { id: 'smooth', name: 'Smooth, no play', word: 'sound' },
      {
        id: 'rough',
        name: 'Rough or loud',
        word: 'failed',
        then: 'Both bearings are renewed: pressed on by the inner race.',
      },
      {
        id: 'play',
        name: 'Play',
        word: 'failed',
        then: 'Both bearings are renewed; look whether the rotor has rubbed the stator.',
      },
      {
        id: 'seized',
        name: 'Doesn’t turn',
        word: 'failed',
        then: 'Don’t run it. Open it: bearing, or rotor against stator.',
      },
    ],
    usual: [0.9945, 0.004, 0.001, 0.0005],
    odds: { 'bearing-worn': [0.06, 0.6, 0.26, 0.08], 'shaft-damaged': [0.7, 0.2, 0.07, 0.03] },
  }),
  findingCheck({
    id: 'bearings-by-ear',
    name: 'Bearings by ear',
    assembly: 'closed',
    minutes: 0.3,
    how: 'A rod from each bearing’s seat to the ear; spin the shaft fast by hand.',
    tells: 'a bearing that runs rough before the hand feels it',
    cautions: ['No sleeve, ring or glove near the pulley.'],
    outcomes: [
      { id: 'quiet', name: 'Quiet, even', word: 'sound' },
      { id: 'rumble', name: 'Rumbles, clicks or grates', word: 'failed', then: 'Both bearings are renewed.' },
    ],
    usual: [0.985, 0.015],
    odds: { 'bearing-worn': [0.08, 0.92], 'shaft-damaged': [0.75, 0.25], 'fan-damaged': [0.85, 0.15] },
  }),
  findingCheck({
    id: 'pulley-by-hand',
    name: 'Pulley by hand',
    assembly: 'closed',
    minutes: 0.3,
    how: 'Rotor held. Solid: tight, grooves clean. One-way clutch: turns free one way, locks the other. Decoupler: locks one way, springs the other.',
    tells: 'a pulley that slips, locks or has come loose',
    outcomes: [
      { id: 'right', name: 'As its kind should', word: 'sound' },
      {
        id: 'free',
        name: 'Free both ways',
        word: 'failed',
        then: 'The clutch drives nothing: a new pulley. This alone gives no charge.',
      },
      {
        id: 'locked',
        name: 'Locked both ways',
        word: 'failed',
        then: 'The clutch no longer lets go: a new pulley, or the belt and its tensioner suffer.',
      },
      {
        id: 'loose',
        name: 'Loose or grooved',
        word: 'failed',
        then: 'Don’t run it loose. Tighten and look at the shaft’s seat, or renew.',
      },
    ],
    usual: [0.9985, 0.0005, 0.0005, 0.0005],
    odds: { 'pulley-worn': [0.04, 0.3, 0.3, 0.36], 'shaft-damaged': [0.6, 0.02, 0.02, 0.36] },
  }),
  findingCheck({
    id: 'fan-by-eye',
    name: 'Fan by eye',
    assembly: 'closed',
    minutes: 0.1,
    how: 'Every blade; turn it once round.',
    tells: 'a blade that is bent, cracked or gone',
    outcomes: [
      { id: 'whole', name: 'Whole', word: 'sound' },
      {
        id: 'damaged',
        name: 'Bent, cracked or loose',
        word: 'failed',
        then: 'A fan out of balance eats bearings: renew it.',
      },
    ],
    usual: [0.9997, 0.0003],
    odds: { 'fan-damaged': [0.03, 0.97] },
  }),
  findingCheck({
    id: 'shaft-by-eye',
    name: 'Shaft and thread by eye',
    assembly: 'closed',
    minutes: 0.2,
    how: 'Turn it and watch the end; look at thread, key and seat.',
    tells: 'a bent shaft, a torn thread',
    outcomes: [
      { id: 'true', name: 'True, thread whole', word: 'sound' },
      {
        id: 'thread',
        name: 'Thread or seat torn',
        word: 'failed',
        then: 'Chase the thread if most of it stands; else another rotor.',
      },
      { id: 'bent', name: 'Runs out', word: 'failed', then: 'Another rotor: a bent shaft isn’t straightened.' },
    ],
    usual: [0.9994, 0.0003, 0.0003],
    odds: { 'shaft-damaged': [0.05, 0.6, 0.35] },
  }),
  findingCheck({
    id: 'case-by-eye',
    name: 'Case and ears by eye',
    assembly: 'closed',
    minutes: 0.2,
    how: 'Ears, bolt holes, bearing seats, all round.',
    tells: 'cracks and worn ears',
    outcomes: [
      { id: 'whole', name: 'Whole', word: 'sound' },
      {
        id: 'cracked',
        name: 'Cracked or an ear broken',
        word: 'failed',
        then: 'A case half from another unit of the model; never weld at a bearing seat.',
      },
    ],
    usual: [0.9997, 0.0003],
    odds: { 'case-cracked': [0.06, 0.94] },
  }),
  findingCheck({
    id: 'terminals-by-eye',
    name: 'Terminals and connector by eye',
    assembly: 'closed',
    minutes: 0.2,
    how: 'Output post and its insulator, plug and pins: pull gently.',
    tells: 'burnt posts, loose pins',
    outcomes: [
      { id: 'clean', name: 'Clean and tight', word: 'sound' },
      { id: 'dirty', name: 'Corroded', word: 'doubtful', then: 'Clean to bright metal, then measure again.' },
      {
        id: 'burnt',
        name: 'Burnt or loose',
        word: 'failed',
        then: 'Renew post and insulator or plug: tell the customer that the vehicle’s side will look the same.',
      },
    ],
    usual: [0.869, 0.13, 0.001],
    odds: { 'terminals-burnt': [0.02, 0.12, 0.86], 'output-leak': [0.5, 0.2, 0.3] },
  }),
];

/** After opening: each piece in the hand, where no brush, belt or load hides what it is by itself. */
export const inHand = (): Check[] => [
  findingCheck({
    id: 'bearings-in-fingers',
    name: 'Each bearing between the fingers',
    assembly: 'opened',
    minutes: 0.4,
    how: 'Outer race of each between two fingers: turn slowly, then fast, then rock it. Look for grease on the outside.',
    tells: 'a bearing that is only beginning to go',
    outcomes: [
      { id: 'smooth', name: 'Smooth, greased, no play', word: 'sound' },
      { id: 'rough', name: 'Rough, dry or loud', word: 'failed', then: 'Both bearings are renewed.' },
      { id: 'play', name: 'Rocks', word: 'failed', then: 'Both bearings are renewed; look for rubbing marks.' },
    ],
    usual: [0.99, 0.008, 0.002],
    odds: { 'bearing-worn': [0.06, 0.66, 0.28], 'shaft-damaged': [0.8, 0.14, 0.06] },
  }),
  findingCheck({
    id: 'rotor-in-hand',
    name: 'Shaft and fan with the rotor out',
    assembly: 'opened',
    minutes: 0.2,
    how: 'Roll the shaft on the bench and watch its ends; thread, key and seat; every blade from behind.',
    tells: 'a bent shaft, a torn thread, a cracked fan',
    outcomes: [
      { id: 'right', name: 'True and whole', word: 'sound' },
      { id: 'thread', name: 'Thread or seat torn', word: 'failed', then: 'Chase the thread if most of it stands.' },
      { id: 'bent', name: 'Shaft runs out', word: 'failed', then: 'Another rotor: a bent shaft isn’t straightened.' },
      { id: 'fan', name: 'Fan bent, cracked or loose', word: 'failed', then: 'Renew the fan before it eats bearings.' },
    ],
    usual: [0.9991, 0.0003, 0.0003, 0.0003],
    odds: { 'shaft-damaged': [0.05, 0.59, 0.35, 0.01], 'fan-damaged': [0.04, 0.005, 0.005, 0.95] },
  }),
  findingCheck({
    id: 'case-in-hand',
    name: 'Case halves from inside',
    assembly: 'opened',
    minutes: 0.2,
    how: 'Both halves to the light: bearing seats, ears from behind, the insulators of post and plug.',
    tells: 'a crack or a burn that dirt hid outside',
    outcomes: [
      { id: 'whole', name: 'Whole, insulators sound', word: 'sound' },
      { id: 'cracked', name: 'Cracked or a seat worn', word: 'failed', then: 'A case half from another unit.' },
      { id: 'burnt', name: 'Post or plug burnt', word: 'failed', then: 'Renew post and insulator or plug.' },
    ],
    usual: [0.9991, 0.0005, 0.0004],
    odds: {
      'case-cracked': [0.06, 0.935, 0.005],
      'terminals-burnt': [0.08, 0.005, 0.915],
      'output-leak': [0.7, 0.01, 0.29],
    },
  }),
  findingCheck({
    id: 'pulley-in-hand',
    name: 'Pulley off the shaft',
    assembly: 'opened',
    minutes: 0.3,
    how: 'Solid: grooves and seat. Clutch or decoupler: inner ring in two fingers, both ways, by jerks.',
    tells: 'a clutch that only slips under a jerk, a worn seat',
    outcomes: [
      { id: 'right', name: 'As its kind should', word: 'sound' },
      { id: 'slips', name: 'Slips, sticks or locks', word: 'failed', then: 'A new pulley.' },
      { id: 'worn', name: 'Grooves or seat worn', word: 'failed', then: 'A new pulley; look at the shaft’s seat.' },
    ],
    usual: [0.9985, 0.0008, 0.0007],
    odds: { 'pulley-worn': [0.04, 0.6, 0.36], 'shaft-damaged': [0.7, 0.02, 0.28] },
  }),
];

/** After opening: what the stator's lacquer tells. */
export const statorByEye = (): Check[] => [
  findingCheck({
    id: 'stator-by-eye',
    name: 'Stator by eye',
    assembly: 'opened',
    minutes: 0.3,
    how: 'Colour of the winding heads all the way round.',
    tells: 'a phase that was overloaded, or the whole of it',
    outcomes: [
      { id: 'even', name: 'Even and light', word: 'sound' },
      {
        id: 'third',
        name: 'One third dark',
        word: 'failed',
        then: 'One phase carried too much or too little: suspect an open diode or shorted turns.',
      },
      {
        id: 'dark',
        name: 'Evenly dark',
        word: 'doubtful',
        then: 'Overloaded as a whole: ask for the battery and what the vehicle draws.',
      },
    ],
    usual: [0.87, 0.02, 0.11],
    odds: {
      'diode-open': [0.5, 0.4, 0.1],
      'diode-shorted': [0.3, 0.5, 0.2],
      'stator-turns': [0.25, 0.6, 0.15],
      'stator-open': [0.5, 0.4, 0.1],
      'stator-core': [0.45, 0.35, 0.2],
    },
  }),
];
