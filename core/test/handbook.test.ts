import { expect } from 'chai';
import {
  brushLeft,
  awgSquare,
  cableDrop,
  driveWatts,
  standLimit,
  twoContact,
  dropAtRated,
  hoursToHalf,
  loadTestLimit,
  metricGauges,
  mostAmps,
  shaftSpeed,
  stateOfCharge,
} from '../src/handbook/index.ts';

describe('handbook: batteries (tables from memory)', () => {
  for (const [volts, charge] of [
    [12.65, 1],
    [12.45, 0.75],
    [12.24, 0.5],
    [12.06, 0.25],
    [11.89, 0],
  ] as const) {
    it(`${volts} V rested, flooded, is ${100 * charge} %`, () => {
      expect(stateOfCharge(volts, 12, 'flooded')).closeTo(charge, 1e-9);
      expect(stateOfCharge(2 * volts, 24, 'flooded')).closeTo(charge, 1e-9);
    });
  }
  it('ends at empty and full, and an absorbed mat reads higher for the same charge', () => {
    expect(stateOfCharge(10, 12, 'flooded')).equal(0);
    expect(stateOfCharge(14, 12, 'flooded')).equal(1);
    for (const volts of [12.1, 12.3, 12.5, 12.7]) {
      expect(stateOfCharge(volts, 12, 'mat')).lessThan(stateOfCharge(volts, 12, 'flooded') + 1e-9);
    }
  });
  for (const [celsius, volts] of [
    [21, 9.6],
    [16, 9.5],
    [10, 9.4],
    [4, 9.3],
    [-1, 9.1],
    [-7, 8.9],
    [-12, 8.7],
    [-18, 8.5],
  ] as const) {
    it(`load test at ${celsius} °C: at least ${volts} V`, () => {
      expect(loadTestLimit(celsius, 12.6, 12)).deep.equal({ volts, barred: undefined });
    });
  }
  it('bars the load test of a battery that is not charged, and says so with both figures', () => {
    expect(loadTestLimit(20, 12.3, 12).barred).match(/12\.30 V.*12\.45 V.*charge first/);
    expect(loadTestLimit(20, 24.6, 24).barred).match(/24\.90 V/);
  });
  it('60 Ah at 50 mA lasts 25 days to half (worked example)', () => {
    expect(hoursToHalf(60, 0.05) / 24).closeTo(25, 1e-9);
    expect(() => hoursToHalf(60, 0)).throw(/above 0/);
  });
});

describe('handbook: cables', () => {
  it('16 mm² is 1.21 Ω/km (IEC 60228 class 5): 4 m at 90 A drop 0.436 V', () => {
    const { ohms, volts } = cableDrop(4, { square: 16 }, 90);
    expect(ohms).closeTo(4.84e-3, 1e-9);
    expect(volts).closeTo(0.4356, 1e-9);
  });
  it('warm copper drops more: 60 °C is 15.7 % above 20 °C (IEC 60028)', () => {
    const cold = cableDrop(4, { square: 16 }, 90).volts;
    expect(cableDrop(4, { square: 16 }, 90, 60).volts / cold).closeTo(1.1572, 1e-4);
  });
  it('AWG diameters follow the geometric series of ASTM B258: 0000 is 11.684 mm, 36 is 0.127 mm', () => {
    const diameter = (gauge: number) => Math.sqrt((4 / Math.PI) * awgSquare(gauge));
    expect(diameter(-3)).closeTo(11.684, 1e-3);
    expect(diameter(36)).closeTo(0.127, 1e-9);
    expect(awgSquare(6)).closeTo(13.3, 0.05);
  });
  it('every metric row lies near copper’s own resistivity over its area, stranding on top', () => {
    for (const [square, ohms] of metricGauges) expect(ohms * square * 58, `${square} mm²`).within(1000, 1180);
  });
  it('names the sections it knows, and asks for a length', () => {
    expect(() => cableDrop(2, { square: 17 }, 10)).throw(/17 mm².*16, 25/);
    expect(() => cableDrop(0, { square: 16 }, 10)).throw(/length/);
  });
  it('the old rule of 0.3 V at 10 A is 30 mΩ, and 3 V at 100 A (common practice, no source)', () => {
    const { ohms, volts } = dropAtRated(0.3, 10, 100);
    expect(ohms).closeTo(0.03, 1e-12);
    expect(volts).closeTo(3, 1e-12);
    expect(() => dropAtRated(0.3, 0, 100)).throw(/amps/);
  });
});

describe('handbook: belts', () => {
  it('about 3 : 1 turns 750 rpm of the engine into 2 250 (common practice, no source)', () => {
    expect(shaftSpeed(750, 165, 55)).deep.equal({ ratio: 3, rpm: 2250 });
    expect(shaftSpeed(750, 165, 55, 0.1).rpm).closeTo(2025, 1e-9);
    expect(() => shaftSpeed(750, 165, 0)).throw(/diameter/);
  });
  it('a brush lasts as long as its wear since new lets it', () => {
    expect(brushLeft(10, 7.5, 5, 2000)).deep.equal({ wearPerThousandHours: 1.25, hours: 2000 });
    expect(brushLeft(10, 4, 5, 2000).hours).equal(0);
    expect(() => brushLeft(10, 10, 5, 2000)).throw(/Nothing is worn/);
    expect(() => brushLeft(10, 11, 5, 2000)).throw(/no longer than it was new/);
    expect(() => brushLeft(5, 5, 5, 2000)).throw(/longer than the least/);
    expect(() => brushLeft(10, 7, 5, 0)).throw(/above 0/);
  });
  it('drive power: an output over an efficiency of 0.5 to 0.6 (common practice, no source), and back', () => {
    expect(driveWatts(13.5, 100)).closeTo(1350 / 0.55, 1e-9);
    expect(driveWatts(13.5, 100, 0.5)).equal(2700);
    expect(mostAmps(driveWatts(27, 80), 27)).closeTo(80, 1e-9);
  });
  it('a two-contact regulator by its two steps (one design’s numbers: common practice, no source)', () => {
    expect(twoContact(14.1, 14.5, 25, 12)).deep.equal(['holds']);
    expect(twoContact(28.2, 29.0, 25, 24)).deep.equal(['holds']);
    expect(twoContact(14.9, 15.2, 25, 12)).deep.equal(['spring too tight']);
    expect(twoContact(13.4, 13.8, 25, 12)).deep.equal(['spring too slack']);
    expect(twoContact(13.4, 13.8, 65, 12), 'warm it holds less').deep.equal(['holds']);
    expect(twoContact(14.1, 14.2, 25, 12)).deep.equal(['step too small']);
    expect(twoContact(14.0, 14.9, 25, 12)).deep.equal(['step too large']);
    expect(twoContact(12.4, 14.2, 25, 12)).deep.equal(['upper fuse wire']);
    expect(twoContact(14.2, 17, 25, 12)).deep.equal(['lower fuse wire']);
  });
  it('a stand ends at the weakest of what it has; nothing said, nothing known', () => {
    expect(standLimit({}, 13.5)).equal(undefined);
    const profile = { motorKilowatts: 4, beltKilowatts: 3, fuseAmps: 150, loadAmps: 200 };
    expect(standLimit(profile, 13.5)).deep.equal({ amps: (3000 * 0.55) / 13.5, by: 'belt' });
    expect(standLimit({ ...profile, loadAmps: 60 }, 13.5)).deep.equal({ amps: 60, by: 'load' });
    expect(standLimit({ ...profile, beltKilowatts: 40, motorKilowatts: 40 }, 13.5)).deep.equal({
      amps: 150,
      by: 'fuse',
    });
    expect(standLimit({ motorKilowatts: 3 }, 27)!.amps).closeTo(61.1, 0.1);
  });
});
