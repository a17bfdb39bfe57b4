import { expect } from 'chai';
import { countSigma, flicker, multimeterById, multimeters, rangeFor, Steadiness } from '../src/instruments/index.ts';
import { normalFrom, seeded } from '../src/numeric/index.ts';

/** A reading ten times a second. */
const every = 0.1;

describe('a reading that comes to rest', () => {
  const normal = normalFrom(seeded(417));
  for (const meter of multimeters)
    it(`${meter.name}: is taken once settled, within a flicker of the truth, on every range`, () => {
      for (const range of meter.ohms) {
        const truth = 0.6 * range.fullScale;
        const own = rangeFor(meter.ohms, truth);
        const steadiness = new Steadiness(meter.ohms);
        let taken: number | undefined;
        for (let n = 0; n < 30 && taken === undefined; n++) {
          const settling = 0.2 * truth * Math.exp((-n * every) / 0.1);
          const value = truth + settling + (countSigma(own) / 4) * normal();
          const hold = steadiness.feed({ seconds: n * every, value });
          if (hold.kind === 'steady') taken = hold.value;
        }
        expect(taken).closeTo(truth, flicker(meter.ohms, truth));
      }
    });

  const meter = multimeterById('bench');
  it('a hand that wanders is never steady, one that stops is', () => {
    const steadiness = new Steadiness(meter.ohms);
    let seconds = 0;
    const feed = (value: number) => steadiness.feed({ seconds: (seconds += every), value });
    for (let n = 0; n < 50; n++) expect(feed(3 + 0.4 * Math.sin(n)).kind).equal('moving');
    const stopped = Array.from({ length: 8 }, () => feed(3.21));
    expect(stopped[2]!.kind).equal('moving');
    expect(stopped.at(-1)).deep.equal({ kind: 'steady', value: 3.21 });
  });
  it('noise beyond what the meter should have is no rest', () => {
    const steadiness = new Steadiness(meter.ohms);
    const noisy = 20 * countSigma(rangeFor(meter.ohms, 3));
    const kinds = Array.from(
      { length: 80 },
      (_, n) => steadiness.feed({ seconds: n * every, value: 3 + noisy * normal() }).kind,
    );
    expect(kinds).not.include('steady');
  });
  it('says how long nothing has been between the tips, and begins anew after a touch', () => {
    const steadiness = new Steadiness(meter.ohms);
    expect(steadiness.feed({ seconds: 1, value: Infinity })).deep.equal({ kind: 'open', seconds: 0 });
    expect(steadiness.feed({ seconds: 3.5, value: Infinity })).deep.equal({ kind: 'open', seconds: 2.5 });
    expect(steadiness.feed({ seconds: 3.6, value: 0.5 }).kind).equal('moving');
    expect(steadiness.feed({ seconds: 3.7, value: Infinity })).deep.equal({ kind: 'open', seconds: 0 });
  });
  it('what was read before the tips lifted doesn’t count for the next point', () => {
    const steadiness = new Steadiness(meter.ohms);
    for (let n = 0; n < 10; n++) steadiness.feed({ seconds: n * every, value: 0.5 });
    steadiness.feed({ seconds: 1.0, value: Infinity });
    expect(steadiness.feed({ seconds: 1.1, value: 0.5 }).kind).equal('moving');
  });
});
