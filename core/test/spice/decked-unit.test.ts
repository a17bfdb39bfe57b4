import { expect } from 'chai';
import { unitSession } from '../../src/assess/index.ts';
import type { Setup } from '../../src/instruments/index.ts';
import { multimeterById } from '../../src/instruments/index.ts';
import { type ClawPole, clawPoleGeneric } from '../../src/machines/index.ts';
import { seeded } from '../../src/numeric/index.ts';
import { type Hidden, HiddenUnit } from '../../src/practice/index.ts';
import { bench } from '../hidden-units.ts';
import { spreads } from '../spreads.ts';
import { DeckedUnit } from './decked-unit.ts';

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
  'a leaking diode and a burnt ring': [hidden('diode-leaky:B+', 5000), hidden('rings-dirty', 2)],
  'an open diode and a stator to core': [hidden('diode-open:C-', 1), hidden('stator-core', 300)],
  'shorted turns in rotor and stator': [hidden('rotor-turns', 0.5), hidden('stator-turns:A', 0.3)],
  'a shorted exciter diode and a worn brush': [hidden('exciter-shorted:C', 0.1), hidden('brush-worn', 4000)],
};

describe('units read in ngspice from a deck written by hand', () => {
  for (const [name, faults] of Object.entries(units)) {
    it(`${name}: every reading of the bench within 1 mV or 0.5 %`, () => {
      const [ours, spice] = [HiddenUnit, DeckedUnit].map(
        (Unit) => new Unit(seeded(417), opened.subject, meter, faults, spreads),
      );
      let compared = 0;
      for (const check of opened.checks) {
        if (check.method.kind !== 'meter') continue;
        const [a, b] = [ours!, spice!].map((unit) =>
          unit.measured((check.method as { setup: Setup }).setup, check.assembly),
        );
        const over = [a!, b!].map(({ value, fullScale }) => value > fullScale);
        expect(over[0], `${check.id}: ${a!.value} against ${b!.value} of ${b!.fullScale}`).equal(over[1]);
        if (over[0]) continue;
        const least = check.unit === 'ohms' ? 2e-4 : 1e-3;
        expect(a!.value, check.id).closeTo(b!.value, Math.max(least, 5e-3 * Math.abs(b!.value)));
        compared++;
      }
      expect(compared).greaterThan(25);
    });
  }

  it('a diode that leaks and one that is open are found from the deck’s readings by the advice', () => {
    for (const [id, severity] of [
      ['diode-leaky:B+', 5000],
      ['diode-open:C-', 1],
    ] as const) {
      const unit = new DeckedUnit(seeded(20261125), opened.subject, meter, [hidden(id, severity)], spreads);
      const { parts } = bench(session, unit, meter, 'the advice');
      expect(parts.told).equal(parts.truth);
    }
  });
});
