import { expect } from 'chai';
import {
  countedReadings,
  faultChances,
  History,
  priorBelief,
  type Reading,
  slipChanceOf,
  soundChance,
} from '../src/belief/index.ts';
import { Trail } from '../src/belief/trail.ts';
import { multimeterById } from '../src/instruments/index.ts';
import { seeded } from '../src/numeric/index.ts';
import { HiddenUnit } from '../src/practice/index.ts';
import { spreads } from './spreads.ts';
import { chanceOf, openKnown, reading, toyOfMany } from './toy.ts';

describe('what is true had dropped for good before the readings that show it', () => {
  const misled = 6;
  const confirmed = 10;
  const opened = toyOfMany(misled + confirmed);
  const look = (at: number, finding: string): Reading => reading(opened, `sees-a:${at}`, { kind: 'finding', finding });
  const first = Array.from({ length: misled }, (_, at) => look(at, 'yes'));
  const then = Array.from({ length: confirmed }, (_, at) => look(misled + at, 'no')).flatMap((one) => [one, one]);
  const asTold = (readings: readonly Reading[]) =>
    new Trail(opened, priorBelief(opened)).follow(countedReadings(readings));

  it('six looks that slipped put it out of sight: followed as told, ten that were taken twice are all slips', () => {
    const { belief } = asTold([...first, ...then]);
    expect(soundChance(belief)).equal(0);
    const doubts = [...first, ...then.filter((_, at) => at % 2)].map((_, at) => slipChanceOf(belief, at) > 0.99);
    expect(doubts).deep.equal([...first.map(() => false), ...Array.from({ length: confirmed }, () => true)]);
    expect(chanceOf(opened, belief, 'a')).closeTo(1, 1e-9);
  });
  it('they are followed anew with what fits nothing first: what is likelier by hand is found, all together as likely', () => {
    const { belief } = new History(opened).follow([...first, ...then]);
    const slip = 0.02;
    const chanceOfLook = (chance: number, slipped: number) => (1 - slipped) * chance + slipped / 2;
    const likely = (yes: number) => chanceOfLook(yes, slip) ** misled * chanceOfLook(1 - yes, slip ** 2) ** confirmed;
    const wrong = chanceOf(opened, priorBelief(opened), 'a');
    const [of, without] = [wrong * likely(1 - 1e-6), (1 - wrong) * likely(1e-6)];
    expect(of / without).lessThan(1e-9);
    expect(chanceOf(opened, belief, 'a')).lessThan(1e-9);
    expect(belief.logLikelihood).closeTo(Math.log(of + without), 1e-6);
  });
  it('reading by reading, a reading struck out, or all at once: the same', () => {
    const list = [...first, ...then];
    const history = new History(opened);
    for (const many of [7, 8, 10, 14, 26, 9, 26, 5, 12]) {
      const some = list.slice(0, many);
      const fresh = new History(opened).follow(some);
      expect([...faultChances(opened, history.follow(some).belief)], `${many} readings`).deep.equal([
        ...faultChances(opened, fresh.belief),
      ]);
    }
    const without = list.filter((_, at) => at !== 3);
    expect([...faultChances(opened, history.follow(without).belief)]).deep.equal([
      ...faultChances(opened, new History(opened).follow(without).belief),
    ]);
  });
  it('one that fits nothing, taken twice, turns nothing over as long as what it contradicts is likelier', () => {
    const { counted, belief } = new History(opened).follow([...first, look(misled, 'no'), look(misled, 'no')]);
    const asRead = [...first, look(misled, 'no')].map(({ check }) => check.id);
    expect(counted.map(({ reading: { check } }) => check.id)).deep.equal(asRead);
    expect(chanceOf(opened, belief, 'a')).greaterThan(0.99);
  });
});

describe('a delta unit strewn three times as widely as its kind, with a shorted exciter diode and a torn phase', () => {
  const meter = multimeterById('bench');
  const torn = { 'exciter-shorted:B': 0.23, 'stator-open:B': 1 };
  for (const seed of [3, 4])
    it(`both are found, of seed ${seed}`, () => {
      const opened = openKnown({ connection: 'delta' }, 'none', 'bench');
      const hidden = Object.entries(torn).map(([id, severity]) => {
        return { fault: opened.faults.find((fault) => fault.id === id)!, severity };
      });
      const unit = new HiddenUnit(seeded(seed), opened.subject, meter, hidden, { ...spreads, slips: 0 }, 3);
      // Each twice over: what comes again is no slip.
      const readings = opened.checks
        .filter(({ method, assembly }) => method.kind === 'meter' && assembly !== 'stand')
        .map((check): Reading => ({ check, outcome: unit.read(check), meter, celsius: 20 }))
        .flatMap((one) => [one, one]);
      const { belief } = new History(opened).follow(readings);
      for (const id of Object.keys(torn)) expect(chanceOf(opened, belief, id), id).greaterThan(0.9);
    });
});
