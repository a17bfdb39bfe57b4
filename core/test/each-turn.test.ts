import { expect } from 'chai';
import { motorRunUp, ripplesPerTurn, swellShare } from '../src/curves/index.ts';
import { findingsOf } from '../src/checks/index.ts';
import { dynamicsOf } from '../src/machines/starter/motor.ts';
import { runningFault, type Starter, starterFed, starterGeneric, subjectOf } from '../src/machines/index.ts';
import { normalFrom, seeded } from '../src/numeric/index.ts';
import { commutatorSpeed, type ReadTurns, turnsOf } from '../src/waveform/index.ts';

const layouts: readonly Starter[] = [starterGeneric(12, 1.4), starterGeneric(12, 1.1, 'planetary')];
const faultOf = (machine: Starter, id: string, severity: number) =>
  runningFault(
    subjectOf(machine).faults.find((fault) => fault.id === id)!,
    severity,
  );

/** A second of a run-up as a clamp sees it, its last turns read. */
function turnsOn(machine: Starter, faults: ReturnType<typeof faultOf>[], noise: number, bars = 25): ReadTurns {
  const { motor, source } = starterFed(machine, faults, 30);
  const dynamics = { ...dynamicsOf(machine), bars };
  const { amps, secondsPerSample } = motorRunUp(motor, source, dynamics, 0, 1, 100_000);
  const normal = normalFrom(seeded(4180));
  const values = [...amps].map((one) => one * (1 + noise * normal()));
  const times = values.map((_, n) => n * secondsPerSample);
  const ripples = ripplesPerTurn(bars);
  return turnsOf(times, values, commutatorSpeed(times, values, ripples), ripples);
}
function readOn(...given: Parameters<typeof turnsOn>) {
  const read = turnsOn(...given);
  if (read.kind === 'refused') throw new Error(read.why);
  return read;
}
/** Steps of a turn that have no ripple. */
const gone = (ripples: readonly number[]): number[] => [...ripples.keys()].filter((k) => ripples[k]! < 0.5);

describe('the current through each turn of an armature', () => {
  for (const machine of layouts) {
    it(`${machine.layout}: a sound one has no gap, through noise of 2 %, and hardly swells`, () => {
      const { gaps, swell, count } = readOn(machine, [], 0.02);
      expect(gaps).equal(0);
      expect(swell).lessThan(0.01);
      expect(count).greaterThan(5);
    });
    for (const coils of [1, 2, 4])
      it(`${machine.layout}: ${coils} shorted leave two gaps, half a turn apart`, () => {
        const { gaps, ripples } = readOn(machine, [faultOf(machine, 'armature-turns', coils)], 0.02);
        expect(gaps).equal(2);
        const steps = gone(ripples);
        // Each step of one gap has its like in the other, half a turn on, but for the step at an edge.
        const opposite = (k: number) =>
          [-1, 0, 1].some((by) => steps.includes((k + by + ripples.length / 2) % ripples.length));
        expect(steps.filter((k) => !opposite(k))).deep.equal([]);
        expect(steps.length).within(2 * coils, 4 * coils + 4);
      });
    it(`${machine.layout}: an open coil leaves them too`, () => {
      expect(readOn(machine, [faultOf(machine, 'armature-open', 1)], 0.02).gaps).equal(2);
    });
    it(`${machine.layout}: a dirty commutator swells as the small signals have it, within 5 %, and leaves no gap`, () => {
      const dirty = faultOf(machine, 'commutator-dirty', 0.012);
      const { gaps, swell } = readOn(machine, [dirty], 0.02);
      const { motor, source } = starterFed(machine, [dirty], 30);
      const foreseen = swellShare(motor, source, dynamicsOf(machine));
      expect(swell).closeTo(foreseen, 0.05 * foreseen);
      expect(gaps).equal(0);
    });
  }
  it('of an even number of bars half of a ripple is left: no gap is claimed where none is clear', () => {
    const [machine] = layouts as [Starter];
    const [sound, shorted] = [[], [faultOf(machine, 'armature-turns', 2)]].map((faults) => {
      return readOn(machine, faults, 0, 28);
    });
    expect(sound!.gaps).equal(0);
    expect(Math.min(...shorted!.ripples)).within(0.3, 0.7);
  });
  it('refuses noise that drowns single bars, a trace of few turns, and one whose speed isn’t read', () => {
    const [machine] = layouts as [Starter];
    const why = (read: ReadTurns) => (read.kind === 'refused' ? read.why : 'read');
    expect(why(turnsOn(machine, [], 0.15))).match(/too faint beside the noise/);
    const { motor, source } = starterFed(machine, [], 30);
    const { amps, secondsPerSample } = motorRunUp(motor, source, dynamicsOf(machine), 0, 1, 100_000);
    const [times, values] = [[...amps].map((_, n) => n * secondsPerSample), [...amps]];
    const [shortTimes, shortValues] = [times.slice(-9000), values.slice(-9000)];
    const speed = commutatorSpeed(shortTimes, shortValues, 50);
    expect(speed.kind).equal('read');
    expect(why(turnsOf(shortTimes, shortValues, speed, 50))).match(/even turns: run it longer/);
    expect(why(turnsOf(times, values, { kind: 'refused', why: 'no speed' }, 50))).equal('no speed');
  });
  it('a clamp the wrong way round reads the same; a trace without its mean is refused', () => {
    const [machine] = layouts as [Starter];
    const { motor, source } = starterFed(machine, [faultOf(machine, 'commutator-dirty', 0.012)], 30);
    const { amps, secondsPerSample } = motorRunUp(motor, source, dynamicsOf(machine), 0, 1, 100_000);
    const times = [...amps].map((_, n) => n * secondsPerSample);
    const read = (values: readonly number[]) => turnsOf(times, values, commutatorSpeed(times, values, 50), 50);
    const [right, reversed] = [[...amps], [...amps].map((one) => -one)].map(read);
    expect(right!.kind === 'read' && right!.swell).within(0.02, 0.1);
    expect(reversed!.kind === 'read' && reversed!.swell).closeTo((right as { swell: number }).swell, 1e-9);
    const mean = amps.slice(-10_000).reduce((sum, one) => sum + one, 0) / 10_000;
    const coupled = read([...amps].map((one) => one - mean));
    expect(coupled.kind === 'refused' && coupled.why).match(/couple the oscilloscope for direct current/);
  });
});

describe('what it says of a starter', () => {
  for (const machine of layouts) {
    const check = subjectOf(machine).checks.find(({ id }) => id === 'each-turn')!;
    const { method } = check;
    if (method.kind !== 'finding') throw new Error('a finding');
    const ids = findingsOf(check).map(({ id }) => id);
    const chance = (outcome: string, species?: string, severity = 1): number =>
      method.chances(species ? [{ species, place: '', severity }] : [])[ids.indexOf(outcome)]!;
    it(`${machine.layout}: names what the trace showed`, () => {
      const seen = (faults: ReturnType<typeof faultOf>[]) => method.turned!(readOn(machine, faults, 0.01));
      expect(seen([])).equal('alike');
      expect(seen([faultOf(machine, 'armature-turns', 2)])).equal('gap');
      expect(seen([faultOf(machine, 'commutator-dirty', 0.012)])).equal('swells');
    });
    it(`${machine.layout}: chances are chances, and what leaves no mark leaves them as they are`, () => {
      for (const { species, severity } of subjectOf(machine).faults)
        for (const degree of severity.grades) {
          const chances = method.chances([{ species, place: '', severity: degree }]);
          expect(
            chances.reduce((sum, p) => sum + p, 0),
            species,
          ).closeTo(1, 1e-9);
          expect(Math.min(...chances), species).greaterThan(0);
        }
      expect(chance('alike', 'bushes-worn', 1.8)).closeTo(chance('alike'), 0.01);
    });
    it(`${machine.layout}: coils from commutator, and the more the surer; what stands shows nothing`, () => {
      expect(chance('gap', 'armature-turns', 1)).greaterThan(20 * chance('gap'));
      expect(chance('gap', 'armature-turns', 4)).greaterThan(chance('gap', 'armature-turns', 1));
      expect(chance('swells', 'commutator-dirty', 0.036)).greaterThan(chance('swells', 'commutator-dirty', 0.004));
      expect(chance('gap', 'commutator-dirty', 0.036)).lessThan(0.05);
      expect(chance('stands', 'brush-worn', 1e6)).greaterThan(0.9);
    });
  }
});
