import { expect } from 'chai';
import fc from 'fast-check';
import {
  formatChance,
  formatQuantity,
  formatReading,
  formatWithin,
  parseQuantity,
  type Unit,
} from '../src/quantity/index.ts';

const valueOf = (text: string, unit: Unit): number => {
  const read = parseQuantity(text, unit);
  if (read.kind !== 'value') throw new Error(`“${text}” gave ${JSON.stringify(read)}`);
  return read.value;
};
const refusal = (text: string, unit: Unit): string => {
  const read = parseQuantity(text, unit);
  return read.kind === 'refused' ? read.message : `not refused: ${JSON.stringify(read)}`;
};

describe('quantity: what people type', () => {
  const understood: readonly (readonly [string, Unit, number])[] = [
    ['0.14', 'ohms', 0.14],
    ['540m', 'volts', 0.54],
    ['540 mV', 'volts', 0.54],
    ['1k2', 'ohms', 1200],
    ['4R7', 'ohms', 4.7],
    ['.48M', 'ohms', 480000],
    ['13,8', 'volts', 13.8],
    ['3.09 Meg', 'ohms', 3.09e6],
    ['3.09 megohm', 'ohms', 3.09e6],
    ['221 kΩ', 'ohms', 221000],
    ['-0.3', 'volts', -0.3],
    ['6 000', 'ohms', 6000],
    ['6\u202f000', 'ohms', 6000],
    ['1,234.5', 'ohms', 1234.5],
    ['1.234,5', 'ohms', 1234.5],
    ['7.5 mm', 'millimetres', 7.5],
    ['7.5mm', 'millimetres', 7.5],
    ['20 °C', 'celsius', 20],
    ['-5', 'celsius', -5],
    ['3 m', 'metres', 3],
    ['2 250 rpm', 'rpm', 2250],
    ['60 Ah', 'ampHours', 60],
    ['95 A', 'amps', 95],
    ['50m', 'amps', 0.05],
    ['3 m', 'metres', 3],
    ['2 250 rpm', 'rpm', 2250],
    ['60 Ah', 'ampHours', 60],
    ['1e3', 'ohms', 1000],
  ];
  for (const [text, unit, value] of understood) {
    it(`“${text}” in ${unit} is ${value}`, () => expect(valueOf(text, unit)).closeTo(value, 1e-9 * Math.abs(value)));
  }
  for (const text of ['OL', 'ol', 'O.L', '0L', 'over', '∞']) {
    it(`“${text}” is over-range`, () => expect(parseQuantity(text, 'ohms').kind).equal('over-range'));
  }

  it('asks about a comma before exactly three digits, naming both readings', () => {
    expect(refusal('1,234', 'ohms')).match(/1\.234.*1234/);
  });
  it('names another unit than the check’s', () => {
    expect(refusal('540 mV', 'ohms')).match(/volts.*Ω/);
    expect(refusal('1k2', 'volts')).match(/resistance.*V/);
  });
  it('refuses words, two numbers, two decimal signs and a negative resistance, each with its own sentence', () => {
    expect(refusal('about half', 'volts')).match(/not a number/);
    expect(refusal('1 2', 'volts')).match(/space inside/);
    expect(refusal('1.2.3', 'volts')).match(/decimal sign|not a number/);
    expect(refusal('-0.3', 'ohms')).match(/below 0/);
    expect(refusal('', 'ohms')).match(/Nothing typed/);
    expect(refusal('5G', 'volts')).match(/5.*more than any bench/);
  });

  it('reads back what it wrote', () => {
    fc.assert(
      fc.property(fc.double({ min: 1e-3, max: 9e8, noNaN: true }), (ohms) => {
        const back = valueOf(formatQuantity(ohms, 'ohms'), 'ohms');
        expect(back).closeTo(ohms, 0.006 * ohms + 1e-6);
      }),
    );
  });
});

describe('quantity: written as engineers do', () => {
  it('a chance is never quite none and never quite sure', () => {
    const words = [0, 0.0099, 0.01, 0.144, 0.99, 0.9901, 1].map(formatChance);
    expect(words).deep.equal(['under 1 %', 'under 1 %', '1 %', '14 %', '99 %', 'over 99 %', 'over 99 %']);
  });
  const written: readonly (readonly [number, Unit, string])[] = [
    [0.142, 'ohms', '0.142 Ω'],
    [0.54, 'volts', '540 mV'],
    [13.8, 'volts', '13.8 V'],
    [3.09e6, 'ohms', '3.09 MΩ'],
    [95, 'amps', '95.0 A'],
    [221000, 'ohms', '221 kΩ'],
  ];
  for (const [value, unit, text] of written) {
    it(text, () => expect(formatQuantity(value, unit).replaceAll('\u202f', ' ')).equal(text));
  }
  const asRead: readonly (readonly [number, Unit, string])[] = [
    [0.4, 'ohms', '0.4 Ω'],
    [0.045, 'ohms', '45 mΩ'],
    [1234, 'ohms', '1.234 kΩ'],
    [2.5e5, 'ohms', '250 kΩ'],
    [0.5387, 'volts', '538.7 mV'],
    [13.86, 'volts', '13.86 V'],
    [14, 'volts', '14 V'],
    [-0.5, 'volts', '−500 mV'],
    [0, 'amps', '0 A'],
    [0.1 + 0.2, 'amps', '0.3 A'],
    [1 / 3, 'amps', '0.3333 A'],
  ];
  for (const [value, unit, text] of asRead) {
    it(`as read: ${text}`, () => expect(formatReading(value, unit).replaceAll('\u202f', ' ')).equal(text));
  }
  const within: readonly (readonly [number, number, Unit, string])[] = [
    // JCGM 100:2008, 7.2.4, there in grams, from memory.
    [100.02147, 0.00079, 'ohms', '100.02147 ± 0.00079 Ω'],
    [9.3, 0.0196, 'ohms', '9.300 ± 0.020 Ω'],
    [0, 0.0167, 'ohms', '0 ± 17 mΩ'],
    [0.05, 0.2, 'ohms', '0.05 ± 0.20 Ω'],
    [1230, 25, 'ohms', '1.230 ± 0.025 kΩ'],
  ];
  for (const [value, uncertainty, unit, text] of within)
    it(`with its uncertainty: ${text}`, () =>
      expect(formatWithin(value, uncertainty, unit).replaceAll('\u202f', ' ')).equal(text));
  it('shows as many decimals as the meter’s step', () => {
    expect(formatQuantity(0.4, 'ohms', 0.1).replaceAll('\u202f', ' ')).equal('0.4 Ω');
  });
});
