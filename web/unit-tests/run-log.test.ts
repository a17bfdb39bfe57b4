import { expect } from 'chai';
import { readRunLog, type RunStep, type TakenRunStep, mayRun } from '../src/lib/run-log.ts';
import { runStepSchema } from '../src/lib/schemas.ts';
import { standLines } from '../src/lib/server/reasoning/stand-lines.ts';
import { jobWith } from './job.ts';

const uuid = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const taken = (n: number, step: RunStep, round = 1): TakenRunStep => ({
  id: uuid(n),
  at: '2026-11-25T10:00:00.000Z',
  step,
  technician: 'Wenna Oskarby',
  round,
});
const point = (rpm: number, amps: number, celsius?: number): RunStep => ({
  kind: 'point',
  rpm,
  volts: 13.5,
  amps,
  ...(celsius === undefined ? {} : { celsius }),
});

describe('the log of the run stand', () => {
  it('keeps the points that stand, of the round asked for', () => {
    const log = [
      taken(1, point(1600, 12)),
      taken(2, point(2400, 400)),
      taken(3, { kind: 'struck', step: uuid(2) }),
      taken(4, point(3000, 55), 2),
    ];
    expect(readRunLog(log, 1).points.map(({ rpm }) => rpm)).deep.equal([1600]);
    expect(readRunLog(log, 2).points).deep.equal([{ id: uuid(4), rpm: 3000, volts: 13.5, amps: 55 }]);
  });
  it('a release holds for its round alone, and the newest counts', () => {
    const said = (why: string): RunStep => ({ kind: 'released', why, against: [] });
    const log = [taken(1, said('the first time')), taken(2, said('the second time'))];
    expect((readRunLog(log, 1).released!.step as { why: string }).why).equal('the second time');
    expect(readRunLog(log, 2).released).equal(undefined);
  });
  it('a release holds for the reasons that it names, not for what comes up later', () => {
    const reasons = ['danger:bearing-worn', 'not-yet:pulley-by-hand'].map((id) => ({ id, check: undefined, why: id }));
    const gate = { green: false, reasons };
    const log = (...against: string[]) =>
      readRunLog([taken(1, { kind: 'released', why: 'only to hear it', against })], 1);
    expect(mayRun(gate, log())).equal(false);
    expect(mayRun(gate, log('danger:bearing-worn'))).equal(false);
    expect(mayRun(gate, log('danger:bearing-worn', 'not-yet:pulley-by-hand'))).equal(true);
    expect(mayRun({ green: true, reasons: [] }, readRunLog([], 1))).equal(true);
  });
  it('the report names every point, foresees the rating, and says who answers for a run against a red light', () => {
    expect(standLines(jobWith([]), [])).deep.equal([]);
    const released = taken(9, { kind: 'released', why: 'the brigade needs it', against: ['danger:diode-shorted'] });
    const ran = jobWith([], { runs: [taken(1, point(1600, 12, 50)), taken(2, point(2600, 45)), released] });
    const lines = standLines(ran, []);
    expect(lines[0]).match(/against a red light: Wenna Oskarby.*the brigade needs it/);
    expect(lines[1]).match(/12\.0 A at 1600 rpm and 13\.5 V, windings 50 °C; 45\.0 A at 2600 rpm/);
    const both =
      /Foreseen at 6000 rpm and 13\.5 V: (\d+) A \(\d+ to \d+, 95 %\); the most a pile draws there, at 1\d\.\d V: (\d+) A \(\d+ to \d+, 95 %\)\. Rated/;
    const [, held, most] = both.exec(lines[2]!)!.map(Number);
    expect(most).least(held!);
    const told = standLines(ran, [{ id: 'stator', name: 'Stator', mean: 0.4, sigma: 0.03 }]);
    expect(told[2], 'more ohms in the stator than its plate says').not.equal(lines[2]);
  });
  for (const [what, step, message] of [
    ['a speed that is none', { kind: 'point', rpm: 20, volts: 13.5, amps: 5 }, /Rotor speed: at least 300/],
    ['amps left out', { kind: 'point', rpm: 2000, volts: 13.5 }, /How many amps/],
    ['a reason too short', { kind: 'released', why: 'so', against: [] }, /few words/],
    ['a step of no kind', { kind: 'spin', rpm: 2000, volts: 13.5, amps: 5 }, /kind|unknown/],
  ] as const) {
    it(`refuses ${what}, and says why`, () => {
      const entry = { id: uuid(1), at: '2026-11-25T10:00:00.000Z', round: 1, technician: uuid(2), step };
      expect(() => runStepSchema.validateSync(entry)).throw(message);
    });
  }
});
