import { expect } from 'chai';
import { unitSession } from '../src/assess/index.ts';
import { slipChance } from '../src/belief/likelihood.ts';
import type { Check } from '../src/checks/index.ts';
import { multimeterById } from '../src/instruments/index.ts';
import { type ClawPole, clawPoleGeneric, type Off, runningFault } from '../src/machines/index.ts';
import { normalFrom, seeded } from '../src/numeric/index.ts';

const machine: ClawPole = { ...clawPoleGeneric(12, 90), connection: 'star', diodeKind: 'silicon' };
const { opened } = unitSession(machine, 'none', [multimeterById('bench')]);
const { subject } = opened;

/** How far running units with one fault lie from what is foreseen of them: each run whole, with all that moves it off by lot. */
describe('a fault on a unit that runs, foreseen and run', () => {
  const faults: readonly (readonly [string, number])[] = [
    ['stator-turns:A', 0.4],
    ['stator-open:A', 1],
    ['diode-open:A-', 1],
    ['rings-dirty', 2],
    ['brush-worn', 3],
  ];
  const moving = ['flux', 'inductance', 'damping', 'stator', 'rotor', 'brushes'];
  /** Wider, in standard deviations, no unit lies; and so much of what makes it run is left. */
  const most = 3;
  const leastLeft = 0.1;
  const many = 60;

  /** In standard deviations of what is foreseen, and how often it is taken to be anything: as often as a slip at least. */
  const off = (id: string, times: number) => {
    const check = opened.checks.find((one) => one.id === id) as Check & { method: { kind: 'run' } };
    const { setup } = check.method;
    const build = opened.builds.find(({ strewn }) => (strewn?.times ?? 1) === times && !strewn?.apart)!;
    const sigma = new Map(subject.nuisances(build).map((nuisance) => [nuisance.name, nuisance.sigma]));
    const normal = normalFrom(seeded(20261129));
    return faults.flatMap(([name, severity]) => {
      const fault = runningFault(
        opened.faults.find((one) => one.id === name)!,
        severity,
      );
      const { value, moves, sigma: own, astray = 0 } = subject.run!(build, setup, [fault]);
      const spread = Object.entries(moves).map(([nuisance, move]) => move * (sigma.get(nuisance) ?? 0));
      const foreseen = Math.hypot(own, ...spread);
      const moved = (by: Off) =>
        Object.entries(moves).reduce((sum, [nuisance, move]) => sum + move * (by[nuisance] ?? 0), 0);
      return Array.from({ length: many }, () => {
        const drawn: Off = Object.fromEntries(
          moving.map((nuisance) => {
            const by = Math.min(Math.max(normal(), -most), most) * sigma.get(nuisance)!;
            return [nuisance, Math.max(by, leastLeft - 1)];
          }),
        );
        const differs = subject.shows!(build, setup, [fault], drawn) - value;
        const left = (differs - moved(drawn)) / own;
        return { sigmas: differs / foreseen, left, said: Math.max(astray, slipChance) };
      });
    });
  };
  const rms = (all: readonly number[]) => Math.sqrt(all.reduce((sum, one) => sum + one ** 2, 0) / all.length);

  for (const [whose, times] of [
    ['as its kind is', 1],
    ['strewn widely', 2.5],
  ] as const) {
    it(`the output of one ${whose} lies as far off as is said`, () => {
      expect(rms(off('output-bypassed:3000', times).map(({ sigmas }) => sigmas))).within(0.7, 1.3);
    });
    it(`tap and exciter terminal of one ${whose} are anything about as often as is said`, () => {
      const all = ['tap-volts', 'exciter-volts'].flatMap((id) => off(id, times));
      const share = all.filter(({ sigmas }) => Math.abs(sigmas) > 4).length / all.length;
      const said = all.reduce((sum, one) => sum + one.said, 0) / all.length;
      expect(share).within(said / 2, 2 * said);
      // What moves it is followed in straight lines; what those leave over is said too.
      const left = all.flatMap((one) => (Math.abs(one.sigmas) <= 4 ? one.left : []));
      expect(rms(left)).within(0.5, 1.5);
    });
  }
});
