import { type Check, findingCheck } from '../../../checks/index.ts';

/**
 * Pin by pin against a known-good twin with the same meter. Weak by nature: many sound regulators of one type differ,
 * and many dead ones read alike [odds from memory].
 */
export const regulatorTwin = (): Check[] => [
  findingCheck({
    id: 'regulator-twin',
    name: 'Regulator against a known-good twin',
    assembly: 'opened',
    minutes: 4,
    how: 'Same meter, same pins, both ways, on this regulator and on a known-good one of its type: type the pairs below.',
    tells: 'a regulator that is dead inside, and not much more',
    outcomes: [
      { id: 'alike', name: 'Alike', word: 'sound', then: 'Says little: a regulator is proved by running.' },
      { id: 'differs', name: 'Differs somewhat', word: 'doubtful', then: 'Says little: twins differ.' },
      {
        id: 'apart',
        name: 'Far apart',
        word: 'failed',
        then: 'Speaks for a dead regulator; prove it by running with another.',
      },
    ],
    usual: [0.75, 0.2, 0.05],
    odds: { regulator: [0.4, 0.25, 0.35] },
  }),
];
