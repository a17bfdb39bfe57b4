import { type Check, findingCheck, type TwinPair } from '../../../checks/index.ts';

/** Apart by more than this is another circuit, by less than that is the scatter of twins [from memory]. */
const another = 10;
const scatter = 2;
/** Over-range beside megohms is nothing [from memory]. */
const nothing = 5e6;

/** The worst of the pairs, by the ratio of the two. */
export function compareTwins(pairs: readonly TwinPair[]): 'alike' | 'differs' | 'apart' {
  const worst = Math.max(
    ...pairs.map(({ own, twin }) => {
      const [low, high] = [Math.min(own, twin), Math.max(own, twin)];
      if (high === Infinity) return low >= nothing ? 1 : Infinity;
      return high === 0 ? 1 : high / Math.max(low, 0.1);
    }),
  );
  return worst > another ? 'apart' : worst > scatter ? 'differs' : 'alike';
}

/**
 * Pin by pin against a known-good twin with the same meter. Weak by nature: many sound regulators of one type differ,
 * and many dead ones read alike [odds from memory].
 */
export const regulatorTwin = (): Check[] => [
  findingCheck({
    id: 'regulator-twin',
    name: 'Regulator against a known-good twin',
    assembly: 'opened',
    upTo: 'unsoldered',
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
    compared: compareTwins,
    odds: { regulator: [0.4, 0.25, 0.35] },
  }),
];
