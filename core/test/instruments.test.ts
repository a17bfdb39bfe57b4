import { expect } from 'chai';
import { Circuit, type Resistor } from '../src/circuit/index.ts';
import {
  countSigma,
  gainSigma,
  lampAmps,
  measure,
  type MeterFunction,
  multimeterById,
  multimeters,
  rangeFor,
  readingSigma,
  testLamp,
} from '../src/instruments/index.ts';

const through = (ohms: number) => {
  const resistor: Resistor = { name: 'r', a: 'p', b: 'q', ohms };
  return new Circuit({ resistors: [resistor], junctions: [] }, 20);
};
const read = (ohms: number, use: MeterFunction, meter = multimeterById('workshop')) => {
  const circuit = through(ohms);
  return measure(circuit, circuit.sound, { function: use, red: 'p', black: 'q' }, meter);
};

describe('instruments: accuracy to standard uncertainty', () => {
  const range = { fullScale: 400, step: 0.1, percent: 0.8, counts: 2 };
  it('±a is rectangular: a/√3, gain and counts apart', () => {
    expect(gainSigma(range)).closeTo(0.008 / Math.sqrt(3), 1e-12);
    expect(countSigma(range) ** 2).closeTo(0.2 ** 2 / 3 + 0.1 ** 2 / 12, 1e-12);
    expect(readingSigma(range, 100)).closeTo(Math.hypot(0.8 / Math.sqrt(3), countSigma(range)), 1e-12);
  });
  it('takes the first range that reaches the value, else the last', () => {
    const meter = multimeterById('workshop');
    expect(rangeFor(meter.ohms, 350).fullScale).equal(400);
    expect(rangeFor(meter.ohms, 450).fullScale).equal(4000);
    expect(rangeFor(meter.ohms, 1e12)).equal(meter.ohms.at(-1));
  });
  for (const meter of multimeters) {
    it(`${meter.name}: ranges rise, every figure is above zero`, () => {
      for (const ranges of [meter.ohms, meter.volts]) {
        ranges.forEach((r, i) => {
          if (i > 0) expect(r.fullScale).greaterThan(ranges[i - 1]!.fullScale);
          expect(Math.min(r.step, r.percent, r.counts)).greaterThan(0);
        });
      }
      expect(meter.diode.sourceVolts).greaterThan(meter.diode.fullScale);
      expect(multimeterById(meter.id)).equal(meter);
    });
  }
  it('an unknown meter is named, with those that are known', () => {
    expect(() => multimeterById('borrowed')).throw(/borrowed.*pocket, workshop, bench/);
  });
});

describe('instruments: readings', () => {
  for (const ohms of [0.1, 3.1, 390, 4100, 1.2e4, 2.2e5, 3e6, 2.5e7]) {
    for (const meter of multimeters) {
      it(`${meter.name} shows ${ohms} Ω, with its leads`, () => {
        expect(read(ohms, 'ohms', meter).value).closeTo(ohms + meter.leadOhms, 1e-6 * ohms + 1e-9);
      });
    }
  }
  it('beyond full scale the value shown lies beyond it too', () => {
    const shown = read(1e9, 'ohms');
    expect(shown.value).greaterThan(shown.fullScale);
  });
  it('diode mode over a resistance is the divider of its source', () => {
    const { sourceVolts, sourceOhms } = multimeterById('workshop').diode;
    const leads = multimeterById('workshop').leadOhms;
    expect(read(1000, 'diode').value).closeTo((sourceVolts * (1000 + leads)) / (sourceOhms + leads + 1000), 1e-6);
  });
  it('the insulation tester reads a winding’s megohms, and says beyond 1 GΩ', () => {
    expect(read(5e6, 'insulation').value).closeTo(5e6, 1);
    expect(read(5e9, 'insulation').value).greaterThan(1e9);
  });
  it('the lamp: rated current at rated volts, twelve times less resistance cold [from memory]', () => {
    expect(lampAmps(testLamp, 12)).closeTo(5 / 12, 0.01 * (5 / 12));
    const cold = 0.001 / lampAmps(testLamp, 0.001);
    const hot = 12 / lampAmps(testLamp, 12);
    expect(hot / cold).closeTo(12, 0.6);
  });
  it('the lamp lights through a hard short, stays dark through 200 Ω', () => {
    expect(read(0.5, 'lamp').value).greaterThan(0.9);
    expect(read(200, 'lamp').value).lessThan(0.4);
  });
});
