import { expect } from 'chai';
import {
  type ClawPole,
  clawPoleBuilds,
  clawPoleGeneric,
  clawPoleRun,
  familyOf,
  runningFault,
  subjectOf,
} from '../src/machines/index.ts';

const machine: ClawPole = { ...clawPoleGeneric(12, 90), connection: 'star', diodeKind: 'silicon' };

describe('a running alternator', () => {
  const build = clawPoleBuilds(machine)[0]!;
  const faults = familyOf(machine).faults(machine);
  const stand = {
    rpm: 3000,
    loadOhms: 1e3,
    batteryVolts: 13.5,
    batteryOhms: 1e-4,
    cableOhms: 1e-4,
    celsius: { windings: 70, diodes: 70 },
    field: 'bypassed',
  } as const;
  const run = (id: string, severity: number, own = machine) => {
    const hidden = runningFault(
      faults.find((fault) => fault.id === id)!,
      severity,
    );
    return clawPoleRun(own, build, [hidden], stand);
  };
  const amps = (...asked: Parameters<typeof run>) => run(...asked).amps.mean;
  /** Its field is fed from the post: nothing tells the sides apart. */
  const fromPost = { ...machine, exciterDiodes: false };
  it('gives the same output wherever the same fault lies: phases are equal', () => {
    const alike = (a: number, b: number, share: number) => expect(a).closeTo(b, share * b);
    alike(amps('diode-open:B-', 1, fromPost), amps('diode-open:A+', 1, fromPost), 0.005);
    alike(amps('diode-shorted:C-', 0.1, fromPost), amps('diode-shorted:A+', 0.1, fromPost), 0.01);
    for (const side of ['+', '-']) {
      alike(amps(`diode-open:B${side}`, 1), amps(`diode-open:A${side}`, 1), 0.005);
      alike(amps(`diode-shorted:C${side}`, 0.1), amps(`diode-shorted:A${side}`, 0.1), 0.01);
    }
    alike(amps('stator-turns:C', 0.2), amps('stator-turns:A', 0.2), 0.005);
  });
  it('and the same at the exciter terminal', () => {
    const exciter = (id: string) => run(id, 1).exciter!.mean;
    for (const [one, other] of [
      ['exciter-open:A', 'exciter-open:C'],
      ['diode-open:A-', 'diode-open:B-'],
      ['stator-open:A', 'stator-open:C'],
    ] as const)
      expect(exciter(one)).closeTo(exciter(other), 0.01 * exciter(other));
    expect(exciter('exciter-open:A')).lessThan(0.85 * stand.batteryVolts);
    expect(run('diode-open:A-', 1, fromPost).exciter).equal(undefined);
  });
  it('a delta gives what the star that stands for it gives, its windings whole, whatever else is wrong (Kennelly 1899, from memory)', () => {
    const delta = { ...machine, connection: 'delta' } as const;
    const [ofDelta] = clawPoleBuilds(delta);
    for (const fault of faults.filter(({ species }) => !species.startsWith('stator-'))) {
      const hidden = [runningFault(fault, fault.severity.grades.at(-1)!)];
      const [star, other] = [clawPoleRun(machine, build, hidden, stand), clawPoleRun(delta, ofDelta!, hidden, stand)];
      expect(other.amps.mean, fault.id).closeTo(star.amps.mean, 0.005 * star.amps.mean + 0.02);
      expect(other.tap.mean, fault.id).closeTo(star.tap.mean, 0.02);
    }
  });
  it('past its regulator a lost positive diode overfeeds the field: more amperes than a sound one’s', () => {
    const sound = clawPoleRun(machine, build, [], stand);
    expect(run('diode-open:A+', 1).fieldAmps).greaterThan(1.2 * sound.fieldAmps);
    expect(amps('diode-open:A+', 1)).greaterThan(sound.amps.mean);
    const regulated = clawPoleRun(machine, build, [], { ...stand, field: 'own' });
    const own = runningFault(
      faults.find(({ id }) => id === 'diode-open:A+')!,
      1,
    );
    expect(clawPoleRun(machine, build, [own], { ...stand, field: 'own' }).amps.mean).lessThan(regulated.amps.mean);
  });
  it('a sound machine gives its rated amps at the rating’s point, cold, by its own regulator (ISO 8854, from memory)', () => {
    const { rpm, volts } = familyOf(machine).generates!.rating(machine);
    const cold = { windings: 23, diodes: 23 };
    const run = clawPoleRun(machine, build, [], { ...stand, rpm, batteryVolts: volts, celsius: cold, field: 'own' });
    expect(run.amps.mean).closeTo(machine.ratedAmps, 0.01 * machine.ratedAmps);
    expect(run.tap.mean / run.volts.mean).closeTo(0.5, 0.005);
  });
  it('shorted rotor turns leave the output nearly as it is and draw more field: common practice, no source', () => {
    const hidden = [
      runningFault(
        faults.find(({ id }) => id === 'rotor-turns')!,
        0.3,
      ),
    ];
    const [sound, shorted] = [[], hidden].map((there) => clawPoleRun(machine, build, there, stand));
    expect(shorted!.amps.mean).greaterThan(0.9 * sound!.amps.mean);
    expect(shorted!.fieldAmps).greaterThan(1.3 * sound!.fieldAmps);
  });
  it('the nearer a rotor is to shorted out whole, the less it gives', () => {
    const shares = [0.3, 0.8, 0.95, 1.05].map((share) => amps('rotor-turns', share));
    expect(shares).deep.equal([...shares].sort((a, b) => b - a));
    expect(shares.at(-1)).lessThan(1);
  });
  it('a field that feeds itself no more dies away, from wherever it is looked for', () => {
    const own = { ...stand, rpm: 1800, field: 'own' } as const;
    const lost = [
      runningFault(
        faults.find(({ id }) => id === 'diode-shorted:A-')!,
        0.03,
      ),
    ];
    const cold = clawPoleRun(machine, build, lost, own);
    const sound = clawPoleRun(machine, build, [], own);
    const near = clawPoleRun(machine, build, lost, own, undefined, { from: sound.settled });
    expect(sound.fieldAmps).greaterThan(3);
    for (const run of [cold, near]) expect(run.fieldAmps).lessThan(0.02 * sound.fieldAmps);
  });
  it('every check on the stand has a state, minutes and cautions', () => {
    const checks = subjectOf(machine).checks.filter(({ assembly }) => assembly === 'stand');
    expect(checks.length).greaterThan(5);
    for (const { minutes, cautions } of checks) {
      expect(minutes).greaterThan(0);
      expect(cautions.length).greaterThan(0);
    }
  });
});
