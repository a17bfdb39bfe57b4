import { expect } from 'chai';
import {
  beliefAfter,
  type Case,
  faultChances,
  fromScale,
  type Particle,
  type Prediction,
  priorBelief,
  slipChance,
} from '../src/belief/index.ts';
import type { Check, Outcome } from '../src/checks/index.ts';
import { multimeterById } from '../src/instruments/index.ts';
import { type Gaussian, gaussianUpdate } from '../src/numeric/index.ts';
import { openKnown } from './toy.ts';

const bench = multimeterById('bench');
/** Nothing at rest shows the first; 15 % of a phase's turns are told from the spread of sound ones by a hair only. */
const shownByNothing = ['regulator', 'stator-turns'];
/** So likely must the true kind be. */
const likely = 0.7;

describe('every fault: readings of the model at its middle severity put its kind first, for all that checks at rest can see', () => {
  const opened = openKnown({}, 'none', 'bench');
  // One phase stands for all.
  const shown = opened.faults.filter(
    ({ species, place }) => !shownByNothing.includes(species) && /^(A|A\+|A-|)$/.test(place),
  );
  it('looks at every kind but those', () => {
    const kinds = new Set(opened.faults.map(({ species }) => species));
    const looked = new Set(shown.map(({ species }) => species));
    expect([...kinds].filter((kind) => !looked.has(kind))).members(shownByNothing);
  });
  for (const fault of shown)
    it(fault.id, () => {
      const degrees = opened.particles.filter(
        ({ faults }) => faults.length === 1 && opened.faults[faults[0]!] === fault,
      );
      const belief = opened.checks.reduce(
        (before, check) => readOf(opened, before, check, degrees[Math.floor(degrees.length / 2)]!),
        priorBelief(opened),
      );
      // A winding to core is felt on all three leads alike: siblings count together.
      const kinds = new Map<string, number>();
      faultChances(opened, belief).forEach((chance, g) => {
        const { species } = opened.faults[g]!;
        kinds.set(species, (kinds.get(species) ?? 0) + chance);
      });
      const [likeliest, chance] = [...kinds].sort((a, b) => b[1] - a[1])[0]!;
      expect(likeliest).equal(fault.species);
      expect(chance).greaterThan(likely);
    });
});

/** What is believed once a check has shown just what the model expects of a unit. */
function readOf(opened: Case, before: ReturnType<typeof priorBelief>, check: Check, unit: Particle) {
  const predictor = opened.predictor({ meter: bench, celsius: 20 });
  const outcome = expectedOf(check, predictor.predict(check, opened.builds[0]!, unit, severitiesKnown(opened)));
  // An odd finding is looked at once more, as the program asks.
  const odd =
    check.method.kind === 'finding' && outcome.kind === 'finding' && outcome.finding !== check.method.outcomes[0]!.id;
  const reading = { check, outcome, meter: bench, celsius: 20 };
  return beliefAfter(opened, before, reading, odd ? slipChance ** 2 : slipChance);
}

function expectedOf(check: Check, expected: Prediction): Outcome {
  const { method } = check;
  if (expected.kind === 'number')
    return expected.mean > expected.top
      ? { kind: 'over-range' }
      : { kind: 'value', value: fromScale(expected.mean, check) };
  const { chances } = expected;
  if (method.kind !== 'finding') return { kind: 'finding', finding: chances[1]! > 0.5 ? 'lit' : 'dark' };
  return { kind: 'finding', finding: method.outcomes[chances.indexOf(Math.max(...chances))]!.id };
}

/** A state that knows both severities to lie in the middle of their cells. */
function severitiesKnown({ priorStates, dimensions }: Case): Gaussian {
  return dimensions.severity.reduce((state, at) => {
    return gaussianUpdate(state, 0, { index: [at], value: [1] }, 0, 1e-6);
  }, priorStates[0]!);
}
