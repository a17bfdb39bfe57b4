import { expect } from 'chai';
import { type Ruler, rulerOf, type TapeReading, unitSession } from '../src/assess/index.ts';
import { multimeterById, multimeters } from '../src/instruments/index.ts';
import { known, situation, take } from './tape.ts';

describe('the ruler of a check', () => {
  const ruler = (check: string, readings: readonly TapeReading[] = [], machine = known, meter = 'workshop'): Ruler =>
    rulerOf(
      unitSession(machine, 'no-charge', [multimeterById(meter)]),
      check,
      situation(readings, { meter }),
      multimeters,
    )!;

  it('lies in order: ends, sound band, suspects outside the sound band', () => {
    for (const check of ['bridge-forward', 'ring-ring', 'current-drop:A+', 'brush-length']) {
      const { from, to, sound, suspects } = ruler(check);
      expect(to, check).greaterThan(from);
      for (const { low, high, over } of [...sound, ...suspects]) {
        expect(high, check).at.least(low);
        if (!over) expect(low, check).at.most(to);
      }
      const [band] = sound;
      for (const suspect of suspects.filter((s) => !s.over)) {
        const middle = (suspect.low + suspect.high) / 2;
        expect(middle < band!.low || middle > band!.high, `${check}: ${suspect.name}`).equal(true);
      }
    }
  });

  it('an unknown build has a sound band for each kind of diode', () => {
    const { sound } = ruler('bridge-forward', [], { ...known, diodeKind: 'unknown' });
    expect(sound.length).equal(2);
    expect(sound.map((s) => s.name).join())
      .match(/silicon/)
      .and.match(/low-loss/);
    const [a, b] = sound.map((s) => (s.low + s.high) / 2).sort((x, y) => x - y);
    expect(a).lessThan(0.7);
    expect(b).greaterThan(0.85);
  });

  it('narrows when siblings have been read: one diode told from its neighbours’ own volts', () => {
    const width = (r: Ruler) => r.sound[0]!.high - r.sound[0]!.low;
    const alone = ruler('diode-forward:C+');
    const after = ruler('diode-forward:C+', [take('diode-forward:A+', 0.52), take('diode-forward:B+', 0.521)]);
    expect(width(after)).lessThan(0.7 * width(alone));
  });

  it('a meter that can’t tell says what would', () => {
    const { canTell, instead } = ruler('stator-pair:AB', [take('leads-null', 0.3, 'pocket')], known, 'pocket');
    expect(canTell).equal(false);
    expect(instead.join('; '))
      .match(/Bench meter/)
      .and.match(/Stator leads A and B under 5 A/);
    expect(ruler('stator-pair:AB', [take('leads-null', 0.02, 'bench')], known, 'bench').canTell).equal(true);
  });

  it('there is none for what the eye or a lamp answers', () => {
    const session = unitSession(known, 'no-charge', [multimeterById('workshop')]);
    const byEye = session.opened.checks.filter(({ method }) => method.kind === 'finding');
    const byLamp = session.opened.checks.filter(
      ({ method }) => method.kind === 'meter' && method.setup.function === 'lamp',
    );
    expect(byEye.length).greaterThan(0);
    expect(byLamp.length).greaterThan(0);
    for (const { id } of [...byEye, ...byLamp]) expect(rulerOf(session, id, situation([])), id).equal(undefined);
  });
});
