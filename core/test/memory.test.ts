import { expect } from 'chai';
import { type Situation, unitSession } from '../src/assess/index.ts';
import {
  beliefAfter,
  type Case,
  checkOf,
  faultChances,
  type Prediction,
  priorBelief,
  type Reading,
} from '../src/belief/index.ts';
import { countedReadings } from '../src/belief/counted.ts';
import { Memory } from '../src/belief/memory.ts';
import { Trail } from '../src/belief/trail.ts';
import type { Outcome } from '../src/checks/index.ts';
import { multimeterById } from '../src/instruments/index.ts';
import { clawPoleGeneric } from '../src/machines/index.ts';
import { openKnown } from './toy.ts';

const workshop = multimeterById('workshop');
const value = (v: number): Outcome => ({ kind: 'value', value: v });
const reading = (opened: Case, check: string, outcome: Outcome): Reading => ({
  check: checkOf(opened, check),
  outcome,
  meter: workshop,
  celsius: 20,
});

describe('memory: what is worked out once more gives the same', () => {
  it('beyond a number of predictions the checks that were not asked for longest are forgotten, never the one at hand', () => {
    const memory = new Memory();
    const { most, kept } = memory;
    const made: string[] = [];
    const of = (name: string): Prediction => {
      made.push(name);
      return { kind: 'chances', chances: [1] };
    };
    const [old, asked, full] = [memory.open(), memory.open(), memory.open()];
    const few = (most - kept) / 2;
    for (let key = 0; key < few; key++) old.get(key, () => of('old'));
    for (let key = 0; key < few; key++) asked.get(key, () => of('asked'));
    for (let key = 0; key < kept; key++) full.get(key, () => of('full'));
    expect(made.length).equal(most);
    old.get(0, () => of('old'));
    expect(made.length, 'all are still known').equal(most);
    asked.get(0, () => of('asked'));
    full.get(kept, () => of('full'));
    made.length = 0;
    full.get(kept - 1, () => of('full'));
    expect(made, 'at hand').deep.equal([]);
    old.get(0, () => of('old'));
    asked.get(0, () => of('asked'));
    expect(made).deep.equal(['old', 'asked']);
  });

  it('remembers as many as there is room for', () => {
    const memory = new Memory();
    memory.most = 30;
    let made = 0;
    const of = (): Prediction => (made++, { kind: 'chances', chances: [1] });
    const [old, anew] = [memory.open(), memory.open()];
    for (let key = 0; key < 15; key++) old.get(key, of);
    for (let key = 0; key < 15; key++) anew.get(key, of);
    old.get(0, of);
    expect(made, 'thirty are known').equal(30);
    for (let key = 15; key < 31; key++) anew.get(key, of);
    made = 0;
    old.get(0, of);
    expect(made, 'one more, and those asked for longest ago are not').equal(1);
  });

  it('is full once what was asked for since it began can’t all be kept, known before or not', () => {
    const memory = new Memory();
    const { kept } = memory;
    const of = (): Prediction => ({ kind: 'chances', chances: [1] });
    const [before, anew] = [memory.open(), memory.open()];
    for (let key = 0; key < 100; key++) before.get(key, of);
    memory.begin();
    for (let key = 0; key < kept - 100; key++) anew.get(key, of);
    expect(memory.isFull, 'what was asked for before may go').equal(false);
    before.get(0, of);
    expect(memory.isFull).equal(true);
    memory.begin();
    expect(memory.isFull).equal(false);
  });

  it('what the check at hand will need is not pushed out by what is prepared after it', () => {
    const session = unitSession(clawPoleGeneric(12, 90), 'none', [workshop]);
    const situation: Situation = { readings: [], assembly: 'opened', meter: workshop.id, celsius: 20 };
    const many = session.opened.checks.filter(({ assembly }) => assembly === 'opened').map(({ id }) => id);
    const [first] = many;
    for (const _ of session.prepare(situation, many));
    expect(session.opened.memory.isFull, 'there was more to prepare than is remembered').equal(true);
    const predictor = session.opened.predictor({ meter: workshop, celsius: 20 });
    const { rows } = session.beliefAfter(situation);
    const foreseen = () =>
      rows.flatMap(({ particles, states }, b) =>
        Array.from(particles, (p, at) => {
          const { builds, particles: all } = session.opened;
          return predictor.predict(checkOf(session.opened, first!), builds[b]!, all[p]!, states[at]!);
        }),
      );
    let workedOut = 0;
    session.opened.memory.took = () => workedOut++;
    expect(foreseen().length).greaterThan(5000);
    expect(workedOut).equal(0);
  });

  it('the same check of another phase is foreseen alike, whichever of them was asked first', () => {
    const foreseen = (asked: readonly string[]): readonly Prediction[] => {
      const opened = openKnown();
      // Forward readings tell what the batch of diodes shares.
      const forward = ['A+', 'B+', 'C+', 'A-', 'B-'].map((at) => reading(opened, `diode-forward:${at}`, value(0.548)));
      const known = forward.reduce((belief, one) => beliefAfter(opened, belief, one), priorBelief(opened));
      return opened.builds.map((build, b) => {
        const predictor = opened.predictor({ meter: workshop, celsius: 20 });
        const sound = (check: string) =>
          predictor.predict(checkOf(opened, check), build, opened.particles[0]!, known.rows[b]!.sound);
        return asked.map(sound).at(-1)!;
      });
    };
    const told = (predictions: readonly Prediction[]) =>
      predictions.map((one) => (one.kind === 'number' ? [one.mean, one.noiseVariance] : []));
    for (const check of ['joined-reverse-ohms:B+', 'joined-reverse-ohms:B-', 'joined-reverse-ohms:C-']) {
      const [alone, after] = [[check], ['joined-reverse-ohms:A+', 'joined-reverse-ohms:A-', check]].map((asked) =>
        told(foreseen(asked)),
      );
      alone!.flat().forEach((figure, n) => expect(figure, check).closeTo(after!.flat()[n]!, 1e-9));
    }
  });

  it('a belief that was let go is thought through anew, and the words rest on what was believed', () => {
    const opened = openKnown();
    const list = countedReadings([
      reading(opened, 'bridge-forward', value(0.93)),
      reading(opened, 'ring-ring', value(3.3)),
      reading(opened, 'joined-reverse-ohms:A+', value(4e6)),
      reading(opened, 'joined-reverse-ohms:B+', value(3e6)),
      reading(opened, 'ring-core', { kind: 'over-range' }),
      reading(opened, 'field-ohms', value(3.5)),
    ]);
    const [holding, lean] = [
      new Trail(opened, priorBelief(opened), 'those it began with', Infinity),
      new Trail(opened, priorBelief(opened), 'those it began with', 1),
    ];
    const [all, few] = [holding, lean].map((trail) => trail.follow(list));
    const heldBy = { holding: all!.after(2), lean: few!.after(2) };
    expect(holding.follow(list).after(2), 'held').equal(heldBy.holding);
    expect([...faultChances(opened, heldBy.lean)]).deep.equal([...faultChances(opened, heldBy.holding)]);
    expect(few!.outsets.map(({ rows }) => rows.map(({ chance }) => chance))).deep.equal(
      all!.outsets.map(({ rows }) => rows.map(({ chance }) => chance)),
    );
    const shorter = [holding, lean].map((trail) => [...faultChances(opened, trail.follow(list.slice(0, 2)).belief)]);
    expect(shorter[1]).deep.equal(shorter[0]);
  });
});
