import { expect } from 'chai';
import { motorRun } from '../src/curves/index.ts';
import { heatLeft, loadTestLimit } from '../src/handbook/index.ts';
import { familyOf, starterFed, runningFault, type Starter } from '../src/machines/index.ts';
import { direct, planetary, reduction } from './starters.ts';

/** Without load, braked and held: how amps, speed and torque move, in shares of the sound one's. */
function moves(machine: Starter, id: string, severity: number) {
  const fault = familyOf(machine)
    .faults(machine)
    .find((one) => one.id === id)!;
  const [sound, faulty] = [[], [runningFault(fault, severity)]].map((faults) => starterFed(machine, faults, 20));
  const held = motorRun(sound!.motor, sound!.source, 'held');
  const run = (of: typeof sound, newtonMetres: number | 'held') =>
    motorRun(of!.motor, of!.source, newtonMetres === 'held' ? 'held' : { newtonMetres });
  const ratio = (load: number | 'held', of: 'amps' | 'rpm' | 'newtonMetres') =>
    run(faulty, load)[of] / run(sound, load)[of] - 1;
  const load = 0.35 * held.newtonMetres;
  return {
    freeAmps: ratio(0, 'amps'),
    freeSpeed: ratio(0, 'rpm'),
    loadedSpeed: ratio(load, 'rpm'),
    heldTorque: ratio('held', 'newtonMetres'),
  };
}

describe('a starter’s faults in its running: what a prototype of the equations showed, in direction and size', () => {
  it('burnt contacts hardly show without load and take a third to two thirds of the held torque', () => {
    for (const ohms of [0.008, 0.025]) {
      const { freeAmps, heldTorque, loadedSpeed } = moves(direct, 'contacts-burnt', ohms);
      expect(freeAmps).within(-0.06, -0.005);
      expect(heldTorque).within(-0.65, -0.25);
      expect(loadedSpeed).lessThan(-0.2);
    }
  });
  it('a shorted armature coil: amps up, speed hardly changed; the trade’s table would have it slow, and is shown beside', () => {
    const { freeAmps, freeSpeed } = moves(direct, 'armature-turns', 1);
    expect(freeAmps).within(0.03, 0.2);
    expect(Math.abs(freeSpeed)).lessThan(0.05);
    const { drives } = familyOf(direct);
    const sound = starterFed(direct, [], 20);
    const { amps, rpm, volts } = motorRun(sound.motor, sound.source, { newtonMetres: 0 });
    const word = drives!.noLoad(direct, { load: 'none', amps: amps * 1.5, rpm, volts }, 20)!;
    expect([word.amps, word.speed, word.pointsTo]).deep.equal([
      'high',
      'normal',
      'no row of the table: see the suspects',
    ]);
  });
  it('drag three times: amps up by half or more, speed down by a fifth or more; less on magnets’ speed', () => {
    const wound = moves(direct, 'bushes-worn', 3);
    const magnets = moves(planetary, 'bushes-worn', 3);
    expect(wound.freeAmps).within(0.4, 1.2);
    expect(wound.freeSpeed).within(-0.45, -0.2);
    expect(magnets.freeSpeed).greaterThan(wound.freeSpeed);
  });
  it('half the field shorted, or weak magnets: amps and speed both up', () => {
    const half = moves(direct, 'field-turns', 0.5);
    const weak = moves(planetary, 'magnets-weak', 0.2);
    for (const { freeAmps, freeSpeed } of [half, weak]) {
      expect(freeAmps).within(0.25, 0.6);
      expect(freeSpeed).within(0.1, 0.3);
    }
  });
  it('no load alone can’t tell contacts, brushes and a weak bench battery apart: all within four parts in a hundred of amps', () => {
    const all = [
      moves(direct, 'contacts-burnt', 0.018),
      moves(direct, 'brush-worn', 0.018),
      moves(direct, 'bench-battery-weak', 2.4),
    ];
    const amps = all.map(({ freeAmps }) => freeAmps);
    expect(Math.max(...amps) - Math.min(...amps)).lessThan(0.04);
  });
});

describe('the trade’s table of a run without load (classical bench table, from memory)', () => {
  const { drives } = familyOf(direct);
  const { motor, source } = starterFed(direct, [], 20);
  const sound = motorRun(motor, source, { newtonMetres: 0 });
  for (const [amps, rpm, pointsTo] of [
    [1, 1, /sound/],
    [1.6, 0.7, /drag/],
    [4, 0, /seized/],
    [0, 0, /open/],
    [0.5, 0.7, /high resistance/],
    [1.6, 1.3, /shorted field/],
  ] as const) {
    it(`amps ${amps} times, speed ${rpm} times: ${String(pointsTo)}`, () => {
      const point = { load: 'none', volts: sound.volts, amps: amps * sound.amps, rpm: rpm * sound.rpm } as const;
      expect(drives!.noLoad(direct, point, 20)!.pointsTo).match(pointsTo);
    });
  }
  it('on magnets both high is weak magnets', () => {
    const own = starterFed(planetary, [], 20);
    const free = motorRun(own.motor, own.source, { newtonMetres: 0 });
    const point = { load: 'none', volts: free.volts, amps: 1.6 * free.amps, rpm: 1.3 * free.rpm } as const;
    expect(familyOf(planetary).drives!.noLoad(planetary, point, 20)!.pointsTo).equal('weak magnets');
  });
});

describe('heat and battery at the starter bench', () => {
  it('heat stays in at first and decays: ten seconds free are a few kelvin, three held tens', () => {
    const { motor, source } = starterFed(direct, [], 20);
    const watts = (load: 'held' | { newtonMetres: number }) => motorRun(motor, source, load).amps ** 2 * motor.ohms;
    const free = heatLeft([{ endedSecondsAgo: 0, seconds: 10, watts: watts({ newtonMetres: 0 }) }], 1.4);
    const held = heatLeft([{ endedSecondsAgo: 0, seconds: 3, watts: watts('held') }], 1.4);
    expect(free).within(0.5, 6);
    expect(held).within(10, 60);
    expect(heatLeft([{ endedSecondsAgo: 900, seconds: 3, watts: watts('held') }], 1.4)).closeTo(held / Math.E, 1e-9);
  });
  it('the load test’s limit by temperature (battery handbook table, from memory)', () => {
    expect(loadTestLimit(21, 12.6, 12).volts).closeTo(9.6, 1e-9);
    expect(loadTestLimit(-18, 12.6, 12).volts).closeTo(8.5, 1e-9);
    expect(loadTestLimit(21, 25.2, 24).volts).closeTo(19.2, 1e-9);
    expect(loadTestLimit(21, 12.2, 12).barred).match(/charge first/);
    expect(reduction.ratedVolts).equal(24);
  });
});
