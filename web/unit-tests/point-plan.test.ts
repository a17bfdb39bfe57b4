import { clawPoleGeneric, familyOf } from '@refectum/core/machines';
import { expect } from 'chai';
import { planPoints } from '../src/lib/live/point-plan.ts';

describe('points of an output curve, planned', () => {
  const machine = clawPoleGeneric(12, 120);
  const family = familyOf(machine);
  const { priors, amps } = family.generates!.output(machine, family.builds(machine)[0]!, []);
  const foreseen = (rpm: number) =>
    amps(
      { rpm, volts: 13.5 },
      priors.map(() => 0),
    );

  it('few up to the rating where the stand can take it', () => {
    const plan = planPoints(foreseen, 200);
    expect(plan.map(({ rpm }) => rpm)).deep.equal([1500, 2000, 2500, 3500, 6000]);
    expect(plan.every(({ possible }) => possible)).equal(true);
  });
  it('nine and more below it where it can’t, those beyond it left out', () => {
    const plan = planPoints(foreseen, foreseen(3500) + 1);
    const possible = plan.filter((point) => point.possible);
    expect(possible.map(({ rpm }) => rpm)).deep.equal([1500, 1750, 2000, 2250, 2500, 2750, 3000, 3250, 3500]);
    const { rpm, amps: left, possible: reached } = plan.at(-1)!;
    expect([rpm, reached]).deep.equal([6000, false]);
    expect(left).closeTo(foreseen(6000), 0.1);
  });
});
