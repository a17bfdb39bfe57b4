import { expect } from 'chai';
import { type TapeReading, unitSession } from '../src/assess/index.ts';
import { faultChances, type NumberPrediction } from '../src/belief/index.ts';
import { toScale } from '../src/belief/scale.ts';
import type { Check } from '../src/checks/index.ts';
import { multimeterById } from '../src/instruments/index.ts';
import { type ClawPole, clawPoleGeneric, runningFault } from '../src/machines/index.ts';
import { gaussianProject, seeded } from '../src/numeric/index.ts';
import { HiddenUnit } from '../src/practice/index.ts';
import { spreads } from './spreads.ts';

const machine: ClawPole = { ...clawPoleGeneric(24, 80), connection: 'star', diodeKind: 'low-loss' };
const meter = multimeterById('bench');
const { opened } = unitSession(machine, 'none', [meter]);
const { subject } = opened;
const build = opened.builds[0]!;

describe('two faults on a unit that runs', () => {
  const runs = opened.checks.filter(({ method }) => method.kind === 'run');
  /** Of pairs drawn at random: how many standard deviations what is foreseen lies off what running both gives, and how often it is said to go astray. */
  const off = (check: Check & { method: { kind: 'run' } }, pairs: number) => {
    const random = seeded(20261128);
    const runFelt = opened.particles.filter(
      ({ faults }) => faults.length === 2 && faults.every((f) => opened.faults[f]!.edits(1).length > 0),
    );
    return Array.from({ length: pairs }, () => {
      const particle = runFelt[Math.floor(random() * runFelt.length)]!;
      const both = particle.faults.map((f, n) => runningFault(opened.faults[f]!, particle.severities[n]!));
      const foreseen = opened.predictor({ meter, celsius: 20 }).predict(check, build, particle) as NumberPrediction;
      const { mean, variance } = gaussianProject(opened.priorStates[0]!, foreseen.mean, foreseen.slope);
      const run = toScale(subject.run!(build, check.method.setup, both).value, check);
      return {
        sigmas: Math.abs(run - mean) / Math.sqrt(variance + foreseen.noiseVariance),
        said: foreseen.astray ?? 0,
      };
    });
  };

  it('what one and one foresee goes astray about as often as is said', () => {
    const all = runs.flatMap((check) => off(check as Parameters<typeof off>[0], 150));
    const share = all.filter(({ sigmas }) => sigmas > 3).length / all.length;
    const said = all.reduce((sum, one) => sum + one.said, 0) / all.length;
    expect(runs.length).greaterThan(2);
    expect(said).within(share / 2, share * 2);
  });

  describe('run before they are looked for at rest, they are found all the same: a torn phase, and a diode of another', () => {
    const hidden = ['diode-open:C-', 'stator-open:A'].map((id) => {
      return { fault: opened.faults.find((fault) => fault.id === id)!, severity: 1 };
    });
    const stand = subject.assemblies.find(({ whenThere }) => whenThere)!.id;
    const inOrder = [
      ...opened.checks.filter(({ assembly }) => assembly === stand),
      ...opened.checks.filter(({ assembly, method }) => assembly !== stand && method.kind === 'meter'),
    ];
    for (const seed of [1, 2])
      it(`seed ${seed}`, () => {
        const unit = new HiddenUnit(seeded(seed), subject, meter, hidden, { ...spreads, slips: 0 }, 1);
        // Every run twice over: what comes again is no slip.
        const tape = inOrder.flatMap((check): TapeReading[] => {
          const taken = { check: check.id, meter: meter.id, celsius: 20, outcome: unit.read(check) };
          return [
            { ...taken, id: check.id },
            { ...taken, id: `${check.id}, again` },
          ];
        });
        const session = unitSession(machine, 'none', [meter]);
        const chances = faultChances(session.opened, session.beliefAfter({ readings: tape }));
        for (const { fault } of hidden) expect(chances[opened.faults.indexOf(fault)], fault.id).greaterThan(0.9);
      });
  });
});
