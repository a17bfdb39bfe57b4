import { expect } from 'chai';
import { assessJob, type Background, type TapeReading, unitSession } from '../src/assess/index.ts';
import type { Outcome } from '../src/checks/index.ts';
import { multimeterById } from '../src/instruments/index.ts';
import { type ClawPole, clawPoleGeneric } from '../src/machines/index.ts';
import { type JobFile, readJobFile } from '../src/record/index.ts';

const known: ClawPole = { ...clawPoleGeneric(12, 90), connection: 'star', diodeKind: 'silicon' };
const meters = [multimeterById('bench')];
const take = (check: string, outcome: Outcome | number): TapeReading => ({
  id: `${check} ${JSON.stringify(outcome)}`,
  check,
  outcome: typeof outcome === 'number' ? { kind: 'value', value: outcome } : outcome,
  meter: 'bench',
  celsius: 20,
});
const over: Outcome = { kind: 'over-range' };
const open = (background: Background = {}, machine = known) => unitSession(machine, 'none', meters, background);
const diagnose = (readings: readonly TapeReading[], background?: Background, machine?: ClawPole) =>
  open(background, machine).diagnose({ readings, assembly: 'unsoldered', meter: 'bench', celsius: 20 });
const chance = (told: ReturnType<typeof diagnose>, fault: string): number =>
  told.suspects.find((suspect) => suspect.fault === fault)?.chance ?? 0;

describe('rounds: what is believed after work', () => {
  const lifted = take('diode-forward:A+', over);
  const received = [take('leads-null', 0.1), lifted, lifted, take('ring-ring', 3.1)];

  it('a fitted item takes its faults away, as far as new parts can be trusted; nothing else is forgotten', () => {
    expect(chance(diagnose(received), 'diode-open:A+')).greaterThan(0.9);
    const after = diagnose([], { past: [{ readings: received, work: { fitted: ['rectifier'], mended: [] } }] });
    expect(chance(after, 'diode-open:A+')).lessThan(0.02);
    const other = diagnose([], { past: [{ readings: received, work: { fitted: ['brushes'], mended: [] } }] });
    expect(chance(other, 'diode-open:A+')).greaterThan(0.8);
  });
  it('what is mended in place is believed gone, and found again where the new round shows it', () => {
    const dirty = [take('leads-null', 0.1), take('field-ohms', 6.2), take('ring-ring', 3.1)];
    const looked = [...dirty, take('rings-by-eye', { kind: 'finding', finding: 'burnt' })];
    expect(chance(diagnose(looked), 'rings-gouged')).greaterThan(0.6);
    const past = [{ readings: looked, work: { fitted: [], mended: ['rings'] } }];
    const before = chance(diagnose([], { past }), 'rings-gouged');
    expect(before).lessThan(0.15);
    const again = chance(diagnose(looked, { past }), 'rings-gouged');
    expect(again).greaterThan(3 * before);
  });
  it('the same checks prove the repair: sound readings of the new round make the unit sound', () => {
    const past = [{ readings: received, work: { fitted: ['rectifier'], mended: [] } }];
    const places = ['A+', 'A-', 'B+', 'B-', 'C+', 'C-'];
    const proved = diagnose(
      places.flatMap((place, i) => [
        take(`diode-forward:${place}`, 0.52 + 0.001 * (i % 3)),
        take(`diode-reverse-ohms:${place}`, 5e6 + 1e5 * i),
      ]),
      { past },
    );
    expect(proved.parts.find(({ id }) => id === 'diode:A+')!.word).equal('sound');
    expect(proved.sound).greaterThan(diagnose(received).sound);
  });
  it('a rectifier of another kind fitted in the work is told as that, not as a fault', () => {
    const past = [{ readings: received, work: { fitted: ['rectifier'], mended: [] } }];
    const places = ['A+', 'A-', 'B+', 'B-', 'C+', 'C-'];
    const read = places.map((place, i) => take(`diode-forward:${place}`, 0.371 + 0.001 * (i % 3)));
    const told = diagnose(read, { past });
    // From half upwards it is told.
    expect(told.builds.find(({ contrary }) => contrary)?.chance).greaterThan(0.5);
    for (const { fault, chance: of } of told.suspects) expect(of, fault).lessThan(0.3);
  });
  it('two works in one visit are two rounds, one after the other', () => {
    const past = [
      { readings: received, work: { fitted: ['rectifier'], mended: [] } },
      { readings: [take('ring-ring', over)], work: { fitted: ['rotor'], mended: [] } },
    ];
    expect(chance(diagnose([], { past }), 'rotor-open')).lessThan(0.03);
    expect(chance(diagnose([], { past: past.slice(0, 1) }), 'rotor-open')).lessThan(0.1);
  });
  it('a job file carries its rounds', () => {
    const at = '2026-11-25T08:00:00Z';
    const file = (round: number): JobFile => ({
      format: 'refectum-job',
      version: 1,
      tag: '1',
      customer: '',
      model: '',
      complaint: 'none',
      words: '',
      machine: known as JobFile['machine'],
      assembly: 'closed',
      meter: 'bench',
      celsius: 20,
      readings: received.map((reading) => ({ ...reading, at, technician: 'T', struck: undefined, round })),
      origin: undefined,
      works: [{ fitted: ['rectifier'], mended: [], note: '', at, technician: 'T' }],
      variants: undefined,
      unlikeShare: undefined,
      meters: undefined,
      prices: { items: {} },
    });
    const open = (told: ReturnType<typeof assessJob>) =>
      told.suspects.find(({ fault }) => fault === 'diode-open:A+')?.chance ?? 0;
    expect(open(assessJob(file(1)))).lessThan(0.02);
    expect(open(assessJob(file(2)))).greaterThan(0.5);
    const point = { rpm: 3000, volts: 13.5, amps: 61, celsius: 60 };
    const points = (...output: { round?: number }[]) =>
      assessJob({ ...file(1), output: output.map((more) => ({ ...point, round: undefined, ...more })) }).output;
    // A point that names no round belongs to the open one.
    expect(points({}).map(({ name }) => name)).deep.equal(['Output at 3000 rpm, 13.5 V']);
    expect(points({ round: 2 })).deep.equal(points({}));
    expect(points({ round: 1 })).deep.equal([]);
    const beyond = JSON.stringify({ ...file(1), output: [{ ...point, round: 3 }] });
    expect(() => readJobFile(beyond)).throw(/round 3 follows no work/);
  });
});

describe('variants: a reading that fits the other one', () => {
  const small = { ...known, statorPairOhms: 0.12 };
  const variants = [{ name: 'large stator', machine: { ...known, statorPairOhms: 0.3 } }];
  const pairs = ['BC', 'CA', 'AB'].map((pair) => take(`stator-pair:${pair}`, 0.4));

  it('raises the variant, not a fault', () => {
    const readings = [take('leads-null', 0.1), ...pairs];
    const told = diagnose(readings, { variants }, small);
    const large = told.builds.filter(({ name }) => name.startsWith('large stator'));
    expect(large.every(({ contrary }) => contrary)).equal(true);
    expect(large.reduce((sum, build) => sum + build.chance, 0)).greaterThan(0.95);
    expect(told.readings.at(-1)!.word).equal('sound');
    const alone = diagnose(readings, {}, small);
    expect(alone.readings[1]!.word).equal('failed');
    expect(told.sound).greaterThan(alone.sound - 0.01);
  });
  it('is a priori the lesser, and left out when it has other parts', () => {
    const { builds } = diagnose([], { variants }, small);
    expect(builds[0]!.chance).closeTo(0.8, 1e-9);
    const other = [{ name: 'no exciter', machine: { ...known, exciterDiodes: false } }];
    expect(diagnose([], { variants: other }, small).builds.length).equal(1);
  });
});

describe('outcomes that every check may have', () => {
  it('a place that can’t be reached says nothing, and isn’t advised again', () => {
    const closed = take('field-ohms', { kind: 'no-access' });
    const session = open();
    const situation = { readings: [closed], assembly: 'closed', meter: 'bench', celsius: 20 };
    const told = session.diagnose(situation);
    expect(told.sound).closeTo(session.diagnose({ ...situation, readings: [] }).sound, 1e-12);
    expect(told.readings[0]!.word).equal('not looked at');
    expect(session.outlook(situation).next.map(({ check }) => check)).not.include('field-ohms');
  });
  it('a reading that changes when touched raises what the check can feel, and clears nothing', () => {
    const before = diagnose([]);
    const told = diagnose([take('diode-forward:A+', { kind: 'changes' })]);
    expect(chance(told, 'diode-open:A+')).greaterThan(2 * chance(before, 'diode-open:A+'));
    expect(told.sound).lessThan(before.sound);
    expect(told.readings[0]!.word).equal('doubtful');
    expect(chance(told, 'rotor-open')).at.most(chance(before, 'rotor-open'));
  });
  it('more than the lowest range shows is over-range there, whatever a meter found on its way', () => {
    const session = open();
    const at = (outcome: Outcome | number) =>
      session.diagnose({
        readings: [take('leads-null', 0.1), take('stator-pair:AB', outcome)],
        assembly: 'opened',
        meter: 'bench',
        celsius: 20,
      });
    expect(chance(at(143e3), 'stator-open:A')).closeTo(chance(at(over), 'stator-open:A'), 1e-12);
  });
  it('a finding says what follows from it', () => {
    const told = diagnose([take('bearings-by-hand', { kind: 'finding', finding: 'rough' })]);
    expect(told.readings[0]!.then).match(/renewed/);
    expect(told.readings[0]!.repeat).match(/once more/);
    expect(chance(told, 'bearing-worn')).greaterThan(0.4);
  });
  it('a slip is seen when later readings speak against it, not only at once', () => {
    const slipped = [take('leads-null', 0.1), take('field-ohms', 88)];
    expect(diagnose(slipped).readings[1]!.repeat ?? '').not.match(/Fits nothing/);
    const steady = take('field-turning', { kind: 'finding', finding: 'steady' });
    const free = take('brushes-by-eye', { kind: 'finding', finding: 'free' });
    const later = [...slipped, take('ring-ring', 3.1), take('brush-length', 8.6), steady, free];
    expect(diagnose(later).readings[1]!.repeat).match(/Fits nothing/);
  });
});
