import { expect } from 'chai';
import { unitSession } from '../src/assess/index.ts';
import { boundsFactor } from '../src/belief/bounds.ts';
import type { Dimensions } from '../src/belief/dimensions.ts';
import { type Case, faultChances, openCase, type Particle, standingParticles } from '../src/belief/index.ts';
import { clawPoleGeneric, type Machine, starterGeneric, subjectOf } from '../src/machines/index.ts';
import {
  gaussianOf,
  gaussianUpdate,
  normalCdf,
  normalPdf,
  type PriorParameter,
  seeded,
  slopeOf,
} from '../src/numeric/index.ts';
import { HiddenUnit, type Strewing } from '../src/practice/index.ts';
import { spreads, starterSpreads } from './spreads.ts';
import { meter } from './starters.ts';

const alternator: Machine = { ...clawPoleGeneric(12, 90), connection: 'star', diodeKind: 'silicon' };
const starter = starterGeneric(12, 1.4, 'direct');

const aloneOf = ({ particles, faults }: Case, id: string) =>
  particles.flatMap((particle, p) =>
    particle.faults.length === 1 && faults[particle.faults[0]!]!.id === id ? [{ p, particle }] : [],
  );

/** How likely a fault of just this severity was taken to be, per unit of ln(severity): as the cells are, bells. */
const densityBefore = (opened: Case, id: string, severity: number): number =>
  aloneOf(opened, id).reduce((sum, { particle: { prior, severities, cellSigmas } }) => {
    return sum + prior * normalPdf(Math.log(severity), Math.log(severities[0]!), cellSigmas[0]!);
  }, 0);

describe('severity: the cells of its grades', () => {
  for (const machine of [alternator, starter, starterGeneric(12, 1.1, 'planetary')])
    it(`${subjectOf(machine).name}: each lies around its grade, they meet, and all are equally likely`, () => {
      const subject = subjectOf(machine);
      const opened = openCase(
        subject,
        subject.complaints.find(({ id }) => id === 'none')!,
        [meter],
      );
      const graded = opened.faults.filter(({ severity: { grades } }) => grades.length > 1);
      expect(graded.length).greaterThan(9);
      for (const { id, severity } of graded) {
        const cells = aloneOf(opened, id).map(({ particle: { severities, cellSigmas, prior } }) => {
          const half = Math.sqrt(3) * cellSigmas[0]!;
          return { low: Math.log(severities[0]!) - half, high: Math.log(severities[0]!) + half, prior };
        });
        expect(cells.length).equal(severity.grades.length);
        for (const [n, grade] of severity.grades.entries()) {
          expect(Math.log(grade), id).within(cells[n]!.low, cells[n]!.high);
          expect(cells[n]!.prior, id).closeTo(cells[0]!.prior, 1e-15);
          if (n > 0) expect(cells[n]!.low, id).closeTo(cells[n - 1]!.high, 1e-9);
        }
      }
    });
});

describe('severity: milder than the mildest is a sound part’s', () => {
  it('a leak in the last cell is the fault; one beyond its edge is a sound diode unlike its siblings', () => {
    const session = unitSession(alternator, 'none', [meter]);
    const { opened } = session;
    const fault = opened.faults.findIndex(({ id }) => id === 'diode-leaky:A-');
    const edge = Math.exp(Math.log(1.6e5) + Math.log(1.6e5 / 3e3) / 2);
    const leaky = (ohms: number): number => {
      const hidden = [{ fault: opened.faults[fault]!, severity: ohms }];
      const unit = new HiddenUnit(seeded(13), opened.subject, meter, hidden, { ...spreads, slips: 0 }, 1);
      const readings = opened.checks
        .filter(({ species }) => species === 'diode-reverse-ohms')
        .map((check) => ({ id: check.id, check: check.id, outcome: unit.read(check), meter: meter.id, celsius: 20 }));
      expect(readings.length).equal(6);
      return faultChances(opened, session.beliefAfter({ readings }))[fault]!;
    };
    // One reading alone may be a slip; the siblings read 11 to 19 MΩ.
    expect(leaky(0.3 * edge)).greaterThan(0.6);
    expect(leaky(1.5 * edge)).lessThan(0.05);
  });

  const hard = { mean: Math.sqrt(3), sigma: 0 };
  const soft = { mean: 0.7, sigma: 0.35 };
  for (const [of, { mean, sigma }, dimensions, particle] of [
    ['a severity at its hard edge', hard, { severity: [0, 1], bounded: [] }, { soundAbove: [true] }],
    [
      'a sound part at a soft one',
      soft,
      { severity: [1], bounded: [{ dimension: 0, most: soft }] },
      { soundAbove: [] },
    ],
  ] as unknown as readonly (readonly [string, PriorParameter, Dimensions, Particle])[])
    it(`a normal cut off, ${of}: as numerical integration has it`, () => {
      const [slope, noise] = [2, 0.25];
      const before = gaussianOf([1, 1]);
      const within = (x: number) => (sigma ? normalCdf((mean - x) / sigma) : Number(x < mean));
      const [from, to, steps] = [-8, sigma ? 8 : mean, 20_000];
      const step = (to - from) / steps;
      const integral = (density: (x: number) => number) =>
        Array.from({ length: steps }, (_, n) => from + (n + 0.5) * step).reduce(
          (sum, x) => sum + normalPdf(x, 0, 1) * within(x) * density(x) * step,
          0,
        );
      for (const y of [-1, 2, 3.4, 5]) {
        const after = gaussianUpdate(before, 0, slopeOf(Float64Array.of(slope, 0), 0), y, noise);
        const exact = integral((x) => normalPdf(y, slope * x, Math.sqrt(noise))) / integral(() => 1);
        const told = normalPdf(y, 0, Math.sqrt(slope ** 2 + noise)) * boundsFactor(particle, dimensions, before, after);
        expect(told, `at ${y}`).closeTo(exact, 1e-3 * exact + 1e-9);
      }
    });
});

describe('severity: more than a sound part has is a fault', () => {
  // Three tenths of an ohm, give or take a third, is the border of a brush contact [from memory].
  for (const [shop, unlikeShare] of [
    ['a usual shop', undefined],
    ['a shop whose units are mostly strewn widely', 0.9],
  ] as const)
    for (const [contact, border] of [
      [0.15, 'sound'],
      [0.2, 'sound'],
      [0.4, 'dirty'],
      [0.6, 'dirty'],
    ] as const)
      it(`${contact} ohms from each brush to its ring: ${border}, in ${shop}`, () => {
        const session = unitSession(alternator, 'none', [meter], { unlikeShare });
        const { opened } = session;
        const rotor = alternator.family === 'claw-pole' ? alternator.rotorOhms : NaN;
        const readings = Object.entries({
          'leads-null': 0,
          'field-ohms': rotor + 2 * contact,
          'ring-ring': rotor,
          'brush-ring:1': contact,
          'brush-ring:2': contact,
        }).map(([check, ohms]) => {
          const outcome = { kind: 'value', value: Number((ohms + meter.leadOhms).toFixed(3)) } as const;
          return { id: check, check, outcome, meter: meter.id, celsius: 20 };
        });
        const dirty = opened.faults.findIndex(({ id }) => id === 'rings-dirty');
        const chance = faultChances(opened, session.beliefAfter({ readings }))[dirty]!;
        if (border === 'sound') expect(chance).lessThan(0.05);
        else expect(chance).greaterThan(0.9);
        for (const { check, word } of session.judge({ readings }))
          if (check.startsWith('brush-ring')) expect(word, check).equal(border === 'sound' ? 'sound' : 'failed');
      });
});

describe('severity: faults that make the same circuit keep their odds, wherever in its cell a severity lies', () => {
  const bench = ['leads-null', 'motor-to-case', 'no-load-volts', 'no-load-amps', 'no-load-rpm', 'contact-drop'];
  const braked = ['loaded-amps', 'loaded-rpm', 'held-amps', 'held-volts', 'held-torque'];
  const closed = ['leads-null', 'bridge-forward', 'bridge-reverse', 'bridge-reverse-ohms'];
  const joined = ['A+', 'A-', 'B+', 'B-', 'C+', 'C-'].map((place) => `joined-reverse-ohms:${place}`);
  const volts = ['joined-reverse:A-', 'joined-forward:A+', 'joined-forward:A-'];
  // The windings between are tenths of an ohm against the leak.
  const pairs: readonly (readonly [string, string, Machine, Strewing, readonly string[], readonly number[]])[] = [
    ['brush-worn', 'commutator-dirty', starter, starterSpreads, [...bench, ...braked], [0.009, 0.018, 0.03]],
    ['stator-core', 'diode-leaky:A-', alternator, spreads, [...closed, ...joined, ...volts], [300, 1500, 5000]],
  ];
  for (const [id, other, machine, strewing, checks, severities] of pairs)
    for (const severity of severities)
      it(`${id} and ${other}, ${severity} ohms`, () => {
        const session = unitSession(machine, 'none', [meter]);
        const { opened } = session;
        const fault = opened.faults.find((one) => one.id === id)!;
        const ratios = Array.from({ length: 4 }, (_, n) => {
          const hidden = [{ fault, severity }];
          const unit = new HiddenUnit(seeded(17 + n), opened.subject, meter, hidden, { ...strewing, slips: 0 }, 1);
          const readings = checks.map((check) => ({
            id: check,
            check,
            outcome: unit.read(opened.checks.find((one) => one.id === check)!),
            meter: meter.id,
            celsius: 20,
          }));
          const standing = standingParticles(session.beliefAfter({ readings }));
          const [one, two] = [id, other].map((alone) => {
            const at = new Set(aloneOf(opened, alone).map(({ p }) => p));
            return standing.reduce((sum, { particle, weight }) => sum + (at.has(particle) ? weight : 0), 0);
          });
          return one! / two!;
        });
        const mean = Math.exp(ratios.reduce((sum, ratio) => sum + Math.log(ratio) / ratios.length, 0));
        const before = densityBefore(opened, id, severity) / densityBefore(opened, other, severity);
        expect(mean / before, `${ratios.join(', ')}, before ${before}`).within(1 / 3, 3);
      });
});
