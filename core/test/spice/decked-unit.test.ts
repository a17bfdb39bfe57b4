import { expect } from 'chai';
import { unitSession } from '../../src/assess/index.ts';
import type { Check } from '../../src/checks/index.ts';
import { multimeterById } from '../../src/instruments/index.ts';
import { type ClawPole, clawPoleGeneric, starterGeneric } from '../../src/machines/index.ts';
import { seeded } from '../../src/numeric/index.ts';
import { type Hidden, HiddenUnit } from '../../src/practice/index.ts';
import { bench } from '../hidden-units.ts';
import { spreads, starterSpreads, unseen } from '../spreads.ts';
import { DeckedAlternator } from './decked-alternator.ts';
import { DeckedStarter } from './decked-starter.ts';

const meter = multimeterById('bench');
const machine: ClawPole = { ...clawPoleGeneric(12, 90), connection: 'star', diodeKind: 'silicon' };
const session = unitSession(machine, 'none', [meter]);
const { opened } = session;

const hidden = (id: string, severity: number): Hidden => ({
  fault: opened.faults.find((fault) => fault.id === id)!,
  severity,
});
const units: Readonly<Record<string, readonly Hidden[]>> = {
  'a sound unit': [],
  'a leaking diode and dirty rings': [hidden('diode-leaky:B+', 5000), hidden('rings-dirty', 2)],
  'an open diode and a stator to core': [hidden('diode-open:C-', 1), hidden('stator-core', 300)],
  'shorted turns in rotor and stator': [hidden('rotor-turns', 0.5), hidden('stator-turns:A', 0.3)],
  'an open exciter diode': [hidden('exciter-open:B', 1)],
  'a shorted exciter diode and a worn brush': [hidden('exciter-shorted:C', 0.1), hidden('brush-worn', 4000)],
};

describe('units read in ngspice from a deck written by hand', () => {
  /** Holds readings of a unit with these faults against the deck's; answers how many there were. */
  function compare(faults: readonly Hidden[], checks: readonly Check[]): number {
    const [ours, spice] = [HiddenUnit, DeckedAlternator].map(
      (Unit) => new Unit(seeded(417), opened.subject, meter, faults, spreads),
    );
    let compared = 0;
    for (const check of checks) {
      if (check.method.kind !== 'meter') continue;
      const { setup } = check.method;
      const [a, b] = [ours!, spice!].map((unit) => unit.measured(setup, check.assembly));
      const over = [a!, b!].map(({ value, fullScale }) => value > fullScale);
      const what = `${faults.map(({ fault }) => fault.id).join(', ')}: ${check.id}`;
      expect(over[0], `${what}: ${a!.value} against ${b!.value} of ${b!.fullScale}`).equal(over[1]);
      if (over[0]) continue;
      const least = check.unit === 'ohms' ? 2e-4 : 1e-3;
      expect(a!.value, what).closeTo(b!.value, Math.max(least, 5e-3 * Math.abs(b!.value)));
      compared++;
    }
    return compared;
  }
  for (const [name, faults] of Object.entries(units))
    it(`${name}: every reading of the bench within 1 mV or 0.5 %`, () => {
      expect(compare(faults, opened.checks)).greaterThan(25);
    });

  it('whatever a study may hide has its place in the deck', () => {
    const faults = opened.faults.filter(({ id }) => !unseen.includes(id));
    const ids = ['bridge-forward', 'bridge-reverse-ohms', 'ring-ring', 'field-ohms', 'stator-pair:AB'];
    const checks = opened.checks.filter(({ id }) => ids.includes(id));
    expect(checks).length(ids.length);
    for (const fault of faults) {
      const { grades } = fault.severity;
      // A stator dead to core is so at one end of one phase in the deck: its windings then read otherwise.
      expect(compare([{ fault, severity: grades[grades.length >> 1]! }], checks), fault.id).greaterThan(1);
    }
    expect(faults.length).greaterThan(25);
  });

  it('a diode that leaks, one that is open and an open exciter diode are found from the deck’s readings by the advice', () => {
    for (const [id, severity] of [
      ['diode-leaky:B+', 5000],
      ['diode-open:C-', 1],
      ['exciter-open:B', 1],
    ] as const) {
      const unit = new DeckedAlternator(seeded(20261125), opened.subject, meter, [hidden(id, severity)], spreads);
      const { parts } = bench(session, unit, meter, 'the advice');
      expect(parts.told).equal(parts.truth);
    }
  });
});

describe('starters read in ngspice from a deck written by hand', () => {
  const direct = starterGeneric(12, 1.4, 'direct');
  const starter = unitSession(direct, 'none', [meter]).opened;
  const of = (id: string, severity: number): Hidden => ({
    fault: starter.faults.find((fault) => fault.id === id)!,
    severity,
  });
  const starters: Readonly<Record<string, readonly Hidden[]>> = {
    'a sound one': [],
    'burnt contacts, a dirty commutator': [of('contacts-burnt', 0.02), of('commutator-dirty', 0.012)],
    'shorted turns in field and pull-in winding': [of('field-turns', 0.35), of('pull-in-turns', 0.5)],
    'shorted armature coils on dragging bushes': [of('armature-turns', 2), of('bushes-worn', 2.5)],
    'a drive that slips, a weak bench battery': [of('drive-slips', 0.18), of('bench-battery-weak', 2.4)],
    'an open field': [of('field-open', 1)],
    'a leak of the armature, a burnt terminal': [of('armature-core', 3000), of('terminals-burnt', 0.015)],
  };
  for (const [name, faults] of Object.entries(starters)) {
    it(`${name}: every reading at rest and running within 1 %`, () => {
      const [ours, spice] = [HiddenUnit, DeckedStarter].map(
        (Unit) => new Unit(seeded(417), starter.subject, meter, faults, { ...starterSpreads, celsius: 0 }),
      );
      let compared = 0;
      for (const check of starter.checks) {
        const { method } = check;
        if (method.kind !== 'meter' && method.kind !== 'run') continue;
        const values = [ours!, spice!].map((unit) => {
          if (method.kind === 'run') return unit.running(method.setup);
          const { value, fullScale } = unit.measured(method.setup, check.assembly);
          return Math.min(value, fullScale);
        });
        const [a, b] = values as [number, number];
        const least = method.kind === 'run' ? 0.02 : check.unit === 'ohms' ? 2e-4 : 1e-3;
        expect(a, check.id).closeTo(b, Math.max(least, 0.01 * Math.abs(b)));
        compared++;
      }
      expect(compared).greaterThan(20);
    });
  }
});
