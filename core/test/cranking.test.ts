import { expect } from 'chai';
import { VehicleSession } from '../src/assess/index.ts';
import { Circuit } from '../src/circuit/index.ts';
import { measure, type Setup } from '../src/instruments/index.ts';
import { familyOf, starterFed, runningFault } from '../src/machines/index.ts';
import { crankRun, crankWord, engineTorque, vehicleGeneric, vehicleSubject } from '../src/vehicle/index.ts';
import { direct, layouts, meter, typed } from './starters.ts';

describe('a starter on its vehicle', () => {
  const motor = starterFed(direct, [], 20).motor;
  const crank = {
    ratedVolts: 12,
    crankingAmps: 600,
    batteryCelsius: 20,
    charge: 1,
    cableOhms: 0.0015,
    newtonMetres: engineTorque(1.5, 'petrol', 20),
  } as const;
  it('a petrol engine of one and a half litres draws about what shops see of four cylinders: 120 to 190 A, over 9.6 V (130–150 A common, from memory)', () => {
    const { amps, batteryVolts } = crankRun(motor, crank);
    expect(amps).within(120, 190);
    expect(batteryVolts).greaterThan(9.6);
  });
  it('tells a tight engine from a weak battery from a resistance on the way', () => {
    const says = (more: object, of = motor, slow = false) => {
      const { amps, batteryVolts } = crankRun(of, { ...crank, ...more });
      return crankWord(motor, crank, amps, batteryVolts, slow).points;
    };
    expect(says({})).equal('as foreseen');
    expect(says({ newtonMetres: 2.2 * crank.newtonMetres })).equal('tight');
    expect(says({ crankingAmps: 200 })).equal('battery');
    const burnt = starterFed(
      direct,
      familyOf(direct)
        .faults(direct)
        .filter(({ id }) => id === 'brush-worn')
        .map((fault) => runningFault(fault, 0.02)),
      20,
    ).motor;
    // The engine's torque settles the amps: what resistance takes is speed.
    expect([says({}, burnt), says({}, burnt, true)]).deep.equal(['as foreseen', 'resistance']);
  });
  it('cold and half charged: fewer volts, and the engine asks more', () => {
    const cold = { ...crank, batteryCelsius: -15, charge: 0.6, newtonMetres: engineTorque(1.5, 'petrol', -15) };
    expect(crankRun(motor, cold).batteryVolts).lessThan(crankRun(motor, crank).batteryVolts - 0.5);
    expect(cold.newtonMetres).greaterThan(1.3 * crank.newtonMetres);
  });
  it('its circuit cranks as the curve of this very starter does on the battery and cables of the vehicle', () => {
    for (const unit of layouts) {
      const vehicle = { ...vehicleGeneric(unit.ratedVolts, 90), engineLitres: unit.ratedKilowatts };
      const { drives } = familyOf(unit);
      const { subject } = vehicleSubject(vehicle, unit, 'slow-crank');
      const network = subject.network(subject.builds[0]!, 'cranking');
      const own = new Circuit(network, 20);
      const ask = (id: string) => {
        const check = subject.checks.find((one) => one.id === id)!;
        return measure(own, own.withEdits([]), (check.method as { setup: Setup }).setup, meter).value;
      };
      const ohms = (name: string) => network.resistors.find((one) => one.name === name)!.ohms;
      const run = crankRun(drives!.fed(unit, [], 20).motor, {
        ratedVolts: unit.ratedVolts,
        crankingAmps: vehicle.crankingAmps,
        batteryCelsius: 20,
        charge: 1,
        cableOhms: ohms('starter-cable') + ohms('ground-path') + ohms('clamp'),
        newtonMetres: engineTorque(vehicle.engineLitres, unit.ratedVolts === 24 ? 'diesel' : 'petrol', 20),
      });
      expect(run.rpm, unit.layout).greaterThan(100);
      expect(ask('cranking-amps') / run.amps, unit.layout).closeTo(1, 0.03);
      expect(ask('cranking-volts'), unit.layout).closeTo(run.batteryVolts, 0.01 * unit.ratedVolts);
    }
  });
  it('every fault that stops or slows its motor shows in the cranking circuit; one of the solenoid’s hold does not', () => {
    const { subject } = vehicleSubject(vehicleGeneric(12, 90), direct, 'slow-crank');
    const graded = (id: string) => {
      const { severity, edits } = subject.faults.find((one) => one.id === id)!;
      return severity.grades.map(edits);
    };
    for (const id of ['contacts-burnt', 'field-open', 'brush-worn', 'bushes-worn', 'armature-turns', 'drive-slips'])
      expect(graded(id).flat(), id).not.deep.equal([]);
    expect(graded('hold-in-open')).deep.equal([[]]);
    expect(graded('contacts-burnt')[1]).deep.equal([{ element: 'contacts', add: 0.018 }]);
    // A trace of drag pulls less than much of it.
    expect(new Set(graded('bushes-worn').map((edits) => JSON.stringify(edits))).size).equal(3);
    // A drive that still carries two thirds of what it can be asked for cranks this engine.
    expect(graded('drive-slips').at(-1)).deep.equal([]);
  });
  it('the vehicle hears the starter’s complaint, and blames it or what feeds it', () => {
    const session = new VehicleSession(vehicleGeneric(12, 90), direct, 'click', [meter]);
    const parked = { assembly: 'cranking', meter: 'bench', celsius: 20 };
    const burnt = session.assessVehicle({
      ...parked,
      readings: typed(['rested-volts', 12.62], ['crank-drop-contacts', 2.9]),
    });
    expect(burnt.suspects[0]!.fault).equal('contacts-burnt');
    expect(burnt.blame.unit).greaterThan(0.8);
    const slow = new VehicleSession(vehicleGeneric(12, 90), direct, 'slow-crank', [meter]);
    const many = slow.assessVehicle({
      ...parked,
      readings: typed(['rested-volts', 12.62], ['cranking-amps', 290], ['cranking-volts', 10.1]),
    });
    const suspects = many.suspects.slice(0, 5).map(({ fault }) => fault);
    expect(suspects, 'many amps: the unit or the engine').include('engine-tight').and.include('bushes-worn');
    const heavy = slow.assessVehicle({
      ...parked,
      readings: typed(
        ['rested-volts', 12.62],
        ['cranking-amps', 290],
        ['cranking-volts', 10.1],
        ['engine-by-hand', 'heavy'],
      ),
    });
    expect(heavy.suspects[0]!.fault, 'turned by hand').equal('engine-tight');
    // Bayes by hand: 70 in 100 where the engine is tight against 4.5 elsewhere, two readings in a hundred slips among three.
    const odds = ({ suspects: all }: typeof many) => {
      const { chance } = all.find(({ fault }) => fault === 'engine-tight')!;
      return chance / (1 - chance);
    };
    const slip = 0.02 / 3;
    expect(odds(heavy) / odds(many)).closeTo((0.98 * 0.7 + slip) / (0.98 * 0.045 + slip), 0.1);
    expect(heavy.blame.unit).lessThan(many.blame.unit);
    const flat = session.assessVehicle({ ...parked, readings: typed(['rested-volts', 11.6]) });
    expect(flat.suspects[0]!.fault).match(/^battery/);
    expect(flat.blame.unit).lessThan(burnt.blame.unit);
  });
});
