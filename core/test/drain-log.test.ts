import { expect } from 'chai';
import fc from 'fast-check';
import { countSigma, currentClamp, gainSigma } from '../src/instruments/index.ts';
import { type DrainEntry, type DrainStep, mostAsleep, outputCable, readDrainLog } from '../src/vehicle/index.ts';
import { normalFrom, seeded } from '../src/numeric/index.ts';

const began = Date.parse('2026-05-04T08:00:00Z');
/** A log from its steps, a minute after another, asleep from the second on. */
const log = (...steps: readonly DrainStep[]): DrainEntry[] =>
  steps.map((step, i) => ({
    id: `s${i}`,
    at: new Date(began + (i === 0 ? 0 : 31 + i) * 60_000).toISOString(),
    step,
  }));
const shut: DrainStep = { kind: 'shut' };
const now = (amps: number): DrainStep => ({ kind: 'now', amps });
const out = (circuit: string, amps: number, leftOut = false): DrainStep => ({ kind: 'out', circuit, amps, leftOut });
const read = (...steps: readonly DrainStep[]) => readDrainLog(log(...steps));

describe('a drain followed fuse by fuse', () => {
  it('says nothing before it was shut and read; when everything sleeps follows from when it was shut', () => {
    expect(readDrainLog([])).deep.include({ shutAt: undefined, total: undefined, conclusion: '' });
    const begun = read(shut);
    expect([begun.shutAt, begun.asleepAt]).deep.equal(['2026-05-04T08:00:00.000Z', '2026-05-04T08:30:00.000Z']);
  });
  it('what a sleeping vehicle may draw needs no following: 0.05 to 0.1 A (common practice, no source)', () => {
    expect(read(shut, now(0.03)).conclusion).match(/0\.030 A in all: no more than a sleeping vehicle may draw/);
    expect(read(shut, now(0.2)).conclusion).match(/0\.200 A in all, more than 0\.050 A: pull the first fuse/);
    expect(mostAsleep).within(0.05, 0.1);
  });
  it('a circuit takes what the drain falls by when its fuse is out', () => {
    const found = read(shut, now(0.55), out('F3', 0.549), out('F7', 0.124));
    expect(found.shares.map(({ circuit, word }) => [circuit, word])).deep.equal([
      ['F3', 'nothing'],
      ['F7', 'drains'],
    ]);
    expect(found.shares[1]!.amps).closeTo(0.426, 1e-12);
    expect(found.rest).closeTo(0.124, 1e-12);
    expect(found.explained).equal(false);
    expect(found.conclusion).equal('Of 0.550 A, “F7” (0.426 A); 0.124 A is left, more than 0.050 A: go on.');
  });
  it('with a fuse left out the next is measured against what is left; put back, against all', () => {
    const left = read(shut, now(0.6), out('A', 0.3, true), out('B', 0.02));
    expect(left.shares.map(({ amps }) => Number(amps.toFixed(3)))).deep.equal([0.3, 0.28]);
    expect(left.rest).closeTo(0.02, 1e-12);
    expect(left.explained).equal(true);
    const back = read(shut, now(0.6), out('A', 0.3), out('B', 0.32));
    expect(back.shares.map(({ amps }) => Number(amps.toFixed(3)))).deep.equal([0.3, 0.28]);
    expect(back.conclusion).match(/“A” \(0\.300 A\) and “B” \(0\.280 A\): that explains it, 0\.020 A is left/);
  });
  it('more without a circuit than with it is something that woke, no share', () => {
    const woke = read(shut, now(0.3), out('F1', 0.9, true), out('F2', 0.299));
    expect(woke.shares.map(({ word }) => word)).deep.equal(['woke', 'nothing']);
    expect(woke.rest).closeTo(0.3, 1e-12);
  });
  it('what goes with the output cable leaks in the unit', () => {
    const leak = read(shut, now(0.4), out(outputCable, 0.03));
    expect(leak.conclusion)
      .match(/^Of 0\.400 A, the unit itself \(0\.370 A\): that explains it/)
      .and.match(/leaks in the unit: on the bench, rectifier/);
    expect(read(shut, now(0.4), out('F1', 0.4), out('F2', 0.399)).conclusion).match(
      /and not through the 2 circuits pulled so far: go on; then the output cable/,
    );
    expect(read(shut, now(0.4), out('F1', 0.385)).conclusion).match(/and not surely through the circuit pulled so far/);
  });
  it('opened and shut again begins anew; read before everything sleeps is early', () => {
    const early = readDrainLog([
      { id: 'a', at: '2026-05-04T08:00:00Z', step: shut },
      { id: 'b', at: '2026-05-04T08:05:00Z', step: now(2.1) },
      { id: 'c', at: '2026-05-04T08:29:00Z', step: out('F1', 1.4) },
      { id: 'd', at: '2026-05-04T08:30:00Z', step: out('F2', 1.3) },
    ]);
    expect(early.shares.map((share) => share.early)).deep.equal([true, false]);
    const again = read(shut, now(0.5), out('F1', 0.1, true), shut, now(0.5));
    expect([again.total, again.rest]).deep.equal([0.5, 0.5]);
    expect(again.shares.length, 'what was found stays').equal(1);
  });
  it('a struck step never was, in whatever order the entries arrive', () => {
    const entries = log(shut, now(0.55), out('F7', 0.05), out('F7', 0.124));
    const struck: DrainEntry = { id: 'x', at: '2026-05-04T07:00:00Z', step: { kind: 'struck', step: 's2' } };
    const without = readDrainLog(entries.filter(({ id }) => id !== 's2'));
    expect(readDrainLog([struck, ...entries].reverse())).deep.equal(without);
  });
  it('shares and rest add up to the drain, whatever is pulled', () => {
    const circuits = fc.array(fc.double({ min: 0.05, max: 2, noNaN: true }), { minLength: 1, maxLength: 6 });
    fc.assert(
      fc.property(circuits, fc.double({ min: 0, max: 0.04, noNaN: true }), fc.boolean(), (loads, base, leftOut) => {
        const total = base + loads.reduce((sum, load) => sum + load, 0);
        let standing = total;
        const steps = loads.map((load, i) => {
          const step = out(`F${i}`, standing - load, leftOut);
          if (leftOut) standing -= load;
          return step;
        });
        const { found, rest } = read(shut, now(total), ...steps);
        const sum = found.reduce((all, share) => all + share.amps, 0) + rest!;
        // What can't be told from nothing stays in the rest, unless it was left out.
        expect(sum).at.most(total + 1e-9);
        if (found.length === loads.length) expect(sum).closeTo(total, 1e-9);
      }),
    );
  });
});

describe('the uncertainty of a share', () => {
  it('is that of two readings on one clamp, their gain shared (JCGM 100, 5.2.2: correlated inputs), by drawing lots', () => {
    const [range] = currentClamp;
    const normal = normalFrom(seeded(20_261_125));
    const [before, after] = [0.9, 0.5];
    const shares = Array.from({ length: 40_000 }, () => {
      const gain = 1 + gainSigma(range!) * normal();
      const shown = (amps: number) => gain * amps + countSigma(range!) * normal();
      return shown(before) - shown(after);
    });
    const mean = shares.reduce((sum, share) => sum + share, 0) / shares.length;
    const drawn = Math.sqrt(shares.reduce((sum, share) => sum + (share - mean) ** 2, 0) / (shares.length - 1));
    const [share] = read(shut, now(before), out('F1', after)).shares;
    expect(share!.sigma / drawn).closeTo(1, 0.02);
  });
  it('a share near what a module may draw asleep can’t be told by this clamp', () => {
    expect(read(shut, now(0.2), out('F1', 0.18)).shares[0]!.word).equal('can’t tell');
    expect(read(shut, now(0.2), out('F1', 0.15)).shares[0]!.word).equal('drains');
  });
});
