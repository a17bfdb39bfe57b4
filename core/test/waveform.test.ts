import { expect } from 'chai';
import FFT from 'fft.js';
import { clawPoleGeneric, clawPoleBuilds, type ClawPole, clawPoleRun, familyOf } from '../src/machines/index.ts';
import { ordersOf, readTrace } from '../src/waveform/index.ts';
import { normalFrom, seeded } from '../src/numeric/index.ts';

const machine: ClawPole = { ...clawPoleGeneric(12, 100), connection: 'star', diodeKind: 'silicon' };
const stand = {
  rpm: 3000,
  loadOhms: 0.3,
  batteryVolts: 12.9,
  batteryOhms: 0.01,
  cableOhms: 3e-3,
  celsius: { windings: 60, diodes: 60 },
  field: 'bypassed',
} as const;

describe('orders of a trace', () => {
  it('are those of a fast Fourier transform (fft.js) of the same samples', () => {
    const random = seeded(20261125);
    const samples = Array.from({ length: 256 }, () => 10 + 4 * random());
    const fft = new FFT(256);
    const spectrum = fft.createComplexArray() as number[];
    fft.realTransform(spectrum, samples);
    const { mean, rms } = ordersOf(samples);
    expect(mean).closeTo(spectrum[0]! / 256, 1e-12);
    rms.forEach((value, at) => {
      const k = at + 1;
      expect(value).closeTo((Math.hypot(spectrum[2 * k]!, spectrum[2 * k + 1]!) * 2) / 256 / Math.SQRT2, 1e-12);
    });
  });
  it('an ideal three-phase bridge: mean 1.35 of the line volts, ripple 4.2 %, order 6 4.04 % (textbook)', () => {
    const line = 10;
    const samples = Array.from({ length: 3600 }, (_, k) => {
      const lines = [0, 1, 2, 3, 4, 5].map((n) => Math.cos((2 * Math.PI * (k + 1)) / 3600 - (n * Math.PI) / 3));
      return Math.SQRT2 * line * Math.max(...lines);
    });
    const { mean, ripple, rms } = ordersOf(samples);
    expect(mean).closeTo(1.35 * line, 0.005 * line);
    expect(ripple / mean).closeTo(0.042, 0.0005);
    // √2/(n² − 1) of the mean at order n.
    expect(rms[5]! / mean).closeTo(Math.SQRT2 / 35, 1e-5);
    expect(rms[0]!).lessThan(1e-9);
  });
});

describe('a trace from an oscilloscope', () => {
  const build = clawPoleBuilds(machine)[0]!;
  const { faults, checks } = familyOf(machine);
  const traced = (() => {
    const check = checks(machine).find(({ id }) => id === 'ripple-orders')!;
    return check.method.kind === 'finding' ? check.method.traced! : undefined;
  })()!;

  /** What the unit with a fault gives, as an oscilloscope samples it: noise, an offset in time, a belt that slips. */
  function sampled(fault: readonly [string, number] | undefined, what: 'amps' | 'volts', slip = 0.03) {
    const there = faults(machine).find(({ id }) => id === fault?.[0]);
    const hidden = there
      ? [{ species: there.species, place: there.place, severity: fault![1], edits: there.edits(fault![1]) }]
      : [];
    const run = clawPoleRun(machine, build, hidden, stand);
    const normal = normalFrom(seeded(417));
    const hertz = run.electricalHertz * (1 - slip);
    const trace = run.trace[what];
    const [seconds, count] = [12.3 / hertz, 5000];
    const times = Array.from({ length: count }, (_, i) => -0.004 + (seconds * i) / count);
    const noise = 0.02 * run[what].ripple;
    const values = times.map((time) => {
      const turns = (((time * hertz) % 1) + 1) % 1;
      return trace[Math.floor(turns * trace.length)]! + noise * normal();
    });
    return { times, values, hertz, run };
  }

  for (const [name, fault, pattern] of [
    ['sound', undefined, 'six'],
    ['a diode open', ['diode-open:B-', 1], 'one'],
    ['a diode shorted', ['diode-shorted:A+', 0.03], 'short'],
    ['a phase open', ['stator-open:C', 1], 'two'],
    ['a seventh of the turns shorted', ['stator-turns:B', 0.15], 'two'],
  ] as const) {
    for (const what of ['amps', 'volts'] as const) {
      it(`${name}, ${what}: frequency, orders and pattern, a belt slipping 3 %`, () => {
        const { times, values, hertz, run } = sampled(fault, what);
        const read = readTrace(times, values, 300);
        if (read.kind !== 'read') throw new Error(read.why);
        expect(read.electricalHertz).closeTo(hertz, 0.004 * hertz);
        expect(read.periods).equal(12);
        const strongest = run[what].rms.indexOf(Math.max(...run[what].rms));
        expect(read.orders.rms[strongest]).closeTo(run[what].rms[strongest]!, 0.06 * run[what].rms[strongest]!);
        expect(traced(read.orders)).equal(pattern);
      });
    }
  }
  it('says what is missing: speed, length, samples, order of time', () => {
    const times = Array.from({ length: 400 }, (_, i) => i * 1e-4);
    const refused = (t: readonly number[], hertz: number) => {
      const read = readTrace(t, t, hertz);
      return read.kind === 'refused' ? read.why : '';
    };
    expect(refused(times, 0)).match(/speed/);
    expect(refused(times, 50)).match(/2\.0 periods/);
    expect(refused(times, 1000)).match(/samples a period/);
    expect(refused([...times].reverse(), 100)).match(/ascend/);
    expect(refused([], 100)).match(/two numbers/);
  });
});
