import { expect } from 'chai';
import { unitSession } from '../src/assess/index.ts';
import { checkOf } from '../src/belief/index.ts';
import { multimeterById } from '../src/instruments/index.ts';
import { type ClawPole, clawPoleGeneric } from '../src/machines/index.ts';

/** Volts under a current of the bench, where copper and junctions lie side by side. */
describe('under a current of the bench', () => {
  const meter = multimeterById('bench');
  describe('a shorted diode beside copper far below its plate is no second fault', () => {
    const machine: ClawPole = { ...clawPoleGeneric(12, 120), connection: 'delta', diodeKind: 'silicon' };
    const session = unitSession(machine, 'none', [meter]);
    // A made-up unit with 0.05 Ω in diode B+ and half its plate's copper, read in the program's own circuit.
    const readings = [
      ['leads-null', 0.103],
      ['joined-forward:A-', 0.459],
      ['joined-reverse-ohms:A+', 0.206],
      ['joined-reverse-ohms:B+', 0.158],
      ['joined-reverse-ohms:C+', 0.206],
      ['current-drop:A+', 0.5223],
      ['current-drop:A-', 0.8452],
      ['current-drop:B+', 0.2526],
      ['current-drop:B-', 0.827],
      ['current-drop:C+', 0.524],
      ['current-drop:C-', 0.834],
      ['stator-pair:BC', 0.156],
      ['stator-pair:CA', 0.149],
      ['stator-pair:AB', 0.157],
      ['stator-drop:BC', 0.2722],
      ['stator-drop:CA', 0.277],
      ['stator-drop:AB', 0.2709],
      ['diode-forward:A+', 0.4831],
      ['diode-forward:A-', 0.5172],
      ['diode-forward:B-', 0.4931],
      ['diode-forward:C+', 0.4951],
      ['diode-forward:C-', 0.5025],
    ].map(([check, value], n) => {
      const outcome = { kind: 'value', value: value as number } as const;
      return { id: String(n), check: check as string, outcome, meter: meter.id, celsius: 20 };
    });
    for (const [many, what] of [
      [11, 'after the diodes under 5 A'],
      [17, 'after the windings too'],
      [22, 'after the diodes one by one'],
    ] as const)
      it(what, () => {
        const situation = { readings: readings.slice(0, many), assembly: 'unsoldered', meter: meter.id, celsius: 20 };
        const { suspects, unlike } = session.diagnose(situation);
        expect(suspects[0]!.fault).equal('diode-shorted:B+');
        expect(suspects[0]!.chance).greaterThan(0.99);
        for (const { fault, chance } of suspects.slice(1)) expect(chance, fault).lessThan(0.5);
        expect(unlike).greaterThan(0.9);
      });
  });

  it('copper alone is foreseen to a millivolt, less surely where a junction takes part of the amps', () => {
    // A 24 V winding drops more under 5 A than a low-loss diode beside it holds back.
    const machine: ClawPole = { ...clawPoleGeneric(24, 80), connection: 'star', diodeKind: 'low-loss' };
    const { opened } = unitSession(machine, 'none', [meter]);
    const predictor = opened.predictor({ meter, celsius: 20 });
    const millivolts = (check: string, fault?: string) => {
      const particle = opened.particles.find(
        ({ faults }) => faults.map((f) => opened.faults[f]!.id).join() === (fault ?? ''),
      )!;
      const prediction = predictor.predict(checkOf(opened, check), opened.builds[0]!, particle);
      if (prediction.kind !== 'number') throw new TypeError(check);
      return 1000 * Math.sqrt(prediction.noiseVariance);
    };
    expect(millivolts('stator-drop:AB')).within(1, 1.5);
    expect(millivolts('stator-drop:AB', 'diode-shorted:B+')).greaterThan(3);
    expect(millivolts('current-drop:A+')).within(9, 13);
  });
});
