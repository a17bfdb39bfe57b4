import { expect } from 'chai';
import { assessJob, type TapeReading, unitSession } from '../src/assess/index.ts';
import { findingsOf } from '../src/checks/index.ts';
import { motorRun } from '../src/curves/index.ts';
import { familyOf, starterFed, runningFault, type Starter, subjectOf } from '../src/machines/index.ts';
import { seeded } from '../src/numeric/index.ts';
import { HiddenUnit } from '../src/practice/index.ts';
import { jobFileSchema, machineSchema, readJobFile } from '../src/record/index.ts';
import { starterSpreads } from './spreads.ts';
import { atBench, direct, inertia, layouts, meter, planetary, type Typed, typed } from './starters.ts';

describe('a starter at rest', () => {
  for (const machine of layouts) {
    const subject = subjectOf(machine);
    it(`${machine.layout}: every fault has a part, every part an item, every check a state, and each fault shows somewhere`, () => {
      const parts = new Map(subject.parts.map((part) => [part.id, part.item]));
      const items = new Set(subject.items.map(({ id }) => id));
      for (const fault of subject.faults) expect(items.has(parts.get(fault.part)!), fault.id).equal(true);
      const states = new Set(['', ...subject.assemblies.map(({ id }) => id)]);
      for (const check of subject.checks) expect(states.has(check.assembly), check.id).equal(true);
      const { opened } = unitSession(machine, 'none', [meter]);
      const predictor = opened.predictor({ meter, celsius: 20 });
      subject.faults.forEach((fault, f) => {
        const seen = subject.checks.some((check) => predictor.feels(check, opened.builds[0]!)[f]);
        expect(seen, fault.id).equal(true);
      });
    });
    it(`${machine.layout}: chances of a finding add up to one, whatever is wrong`, () => {
      for (const check of subject.checks) {
        if (check.method.kind !== 'finding') continue;
        for (const faults of [[], ...subject.faults.map((fault) => [{ ...fault, severity: 1 }])]) {
          const chances = check.method.chances(faults);
          expect(chances.length).equal(findingsOf(check).length);
          expect(chances.reduce((sum, p) => sum + p, 0)).closeTo(1, 1e-9);
        }
      }
    });
  }
  it('spinning free follows from running it: open brushes stand, burnt contacts only where they are in the way, drag is slow', () => {
    const chance = (machine: Starter, id: string, outcome: string, species?: string, severity = 1) => {
      const check = subjectOf(machine).checks.find((one) => one.id === id)!;
      const at = findingsOf(check).findIndex((one) => one.id === outcome);
      if (check.method.kind !== 'finding') throw new TypeError(id);
      return check.method.chances(species ? [{ species, place: '', severity }] : [])[at]!;
    };
    for (const machine of layouts) {
      expect(chance(machine, 'whole', 'right'), machine.layout).greaterThan(0.95);
      expect(chance(machine, 'whole', 'throws', 'brush-worn', 1000), machine.layout).greaterThan(0.9);
      // A brush that is short but makes contact: nobody hears it.
      expect(chance(machine, 'whole', 'right', 'brush-worn', 1e-4), machine.layout).greaterThan(0.95);
      expect(chance(machine, 'whole', 'slow', 'shaft-rubs', 8), machine.layout).greaterThan(0.5);
    }
    expect(chance(direct, 'whole', 'right', 'contacts-burnt', 1)).lessThan(0.1);
    expect(chance(direct, 'motor-alone', 'spins', 'contacts-burnt', 1)).greaterThan(0.95);
    expect(chance(direct, 'motor-alone', 'stands', 'field-open')).greaterThan(0.95);
    // Where it stopped over an open coil it may not start again.
    expect(chance(direct, 'motor-alone', 'stands', 'armature-open')).within(0.2, 0.4);
  });
  it('what is seen or heard of one unit is the same looked at again, unless the entry slipped', () => {
    const random = seeded(7);
    const { opened } = unitSession(direct, 'none', [meter]);
    const fault = opened.faults.find(({ id }) => id === 'armature-turns')!;
    const looked = new Set<string>();
    for (let n = 0; n < 40; n++) {
      const unit = new HiddenUnit(random, opened.subject, meter, [{ fault, severity: 2 }], {
        ...starterSpreads,
        slips: 0,
      });
      const again = (id: string) =>
        opened.checks.filter((check) => check.id === id).map((check) => JSON.stringify(unit.read(check)))[0]!;
      for (const id of ['smell', 'brush-length']) {
        const first = again(id);
        for (let k = 0; k < 3; k++) expect(again(id), id).equal(first);
        looked.add(first);
      }
    }
    // Of forty units, some smell and some don't.
    expect([...looked].filter((outcome) => outcome.includes('finding')).length).equal(2);
  });
  it('an open motor shows the two solenoid windings in series, not OL; with its lead off, OL (the trade’s “over-range means open” holds only there)', () => {
    const session = unitSession(direct, 'none', [meter]);
    const { opened } = session;
    const predictor = opened.predictor({ meter, celsius: 20 });
    const field = opened.faults.findIndex(({ id }) => id === 'field-open');
    const particle = opened.particles.find(({ faults }) => faults.length === 1 && faults[0] === field)!;
    const shown = (id: string) => {
      const check = opened.checks.find((one) => one.id === id)!;
      const found = predictor.predict(check, opened.builds[0]!, particle);
      if (found.kind !== 'number') throw new Error('no number');
      return { ohms: Math.sinh(found.mean), over: found.mean > found.top };
    };
    expect(shown('motor-to-case').ohms).closeTo(0.45 + 1.3 + meter.leadOhms, 0.05);
    expect(shown('lead-to-case').over || shown('lead-to-case').ohms > 1e6).equal(true);
  });
  it('pull-in and hold-in read what the plate says, with the motor lead off (0.3–0.6 Ω and 1–2 Ω, from memory)', () => {
    const unit = new HiddenUnit(seeded(1), subjectOf(direct), meter, [], {
      ...starterSpreads,
      resistors: {},
      logs: {},
      leads: 0,
    });
    const [pullIn, holdIn] = [
      ['command', 'motor'],
      ['command', 'case'],
    ].map(([red, black]) => unit.measured({ function: 'ohms', red: red!, black: black! }, 'lead-off').value);
    expect(pullIn! - meter.leadOhms).within(0.4, 0.5);
    expect(holdIn! - meter.leadOhms).within(1.2, 1.4);
  });
  it('an inertia drive has no solenoid, magnets no field coils, a direct drive no gears', () => {
    const parts = (machine: Starter) => subjectOf(machine).parts.map(({ id }) => id);
    expect(parts(inertia).filter((id) => ['plunger', 'pull-in', 'fork'].includes(id))).deep.equal([]);
    expect(parts(planetary).filter((id) => ['magnets', 'field'].includes(id))).deep.equal(['magnets']);
    expect(parts(direct).filter((id) => ['gears', 'field'].includes(id))).deep.equal(['field']);
  });
  it('a drive that slips runs free as a sound one; braked, the motor whirs on few amps and the pinion stands (common practice, no source)', () => {
    for (const machine of layouts) {
      const fault = familyOf(machine)
        .faults(machine)
        .find(({ id }) => id === 'drive-slips')!;
      const [sound, slips] = [[], [runningFault(fault, fault.severity.grades[0]!)]].map((faults) => {
        const { motor, source } = starterFed(machine, faults, 20);
        const at = (load: 'held' | { newtonMetres: number }) => motorRun(motor, source, load);
        const held = motorRun(starterFed(machine, [], 20).motor, source, 'held').newtonMetres;
        return { free: at({ newtonMetres: 0 }), braked: at({ newtonMetres: 0.35 * held }), held: at('held') };
      });
      expect(slips!.free).deep.equal(sound!.free);
      expect([slips!.braked.rpm, slips!.held.rpm]).deep.equal([0, 0]);
      expect(slips!.braked.amps).lessThan(0.6 * sound!.braked.amps);
      expect(slips!.held.newtonMetres).closeTo(fault.severity.grades[0]! * sound!.held.newtonMetres, 1e-6);
    }
  });
  it('a starter with magnets is never to be tapped', () => {
    const cautions = subjectOf(planetary).checks.flatMap((check) => [...check.cautions, check.how]);
    expect(cautions.some((text) => /Never tap/.test(text))).equal(true);
    expect(
      subjectOf(direct)
        .checks.flatMap(({ cautions: own }) => own)
        .some((text) => /Never tap/.test(text)),
    ).equal(false);
  });
});

describe('what is believed of a starter', () => {
  const clear = [
    ['free-turning', 'free'],
    ['main-to-case', 'OL'],
    ['main-to-motor', 'OL'],
    ['case-by-eye', 'whole'],
  ] as const;
  it('the light: red until it was turned by hand and both ohms were read; red again for welded contacts', () => {
    const session = unitSession(direct, 'none', [meter]);
    const gate = (readings: TapeReading[]) => session.diagnose(atBench(readings, 'closed')).gate!;
    expect(gate([]).reasons.map(({ check }) => check))
      .include('free-turning')
      .and.include('main-to-case');
    expect(gate(typed(...clear)).green).equal(true);
    const welded = gate(typed(...clear.filter(([id]) => id !== 'main-to-motor'), ['main-to-motor', 0.12]));
    expect(welded.reasons.map(({ why }) => why).join()).match(/Welded contacts/);
  });
  it('asks for what the light wants before it advises a run, and for no run at all against a danger', () => {
    const session = unitSession(direct, 'click', [meter]);
    const seen = typed(
      ['terminals-by-eye', 'clean'],
      ['smell', 'none'],
      ['pinion-by-eye', 'whole'],
      ['drive-by-hand', 'right'],
      ['plunger-by-hand', 'right'],
      ['leads-null', meter.leadOhms],
      ['motor-to-case', 0.12],
      ['free-turning', 'free'],
      ['pull-in', 0.5],
      ['hold-in', 1.3],
      ['lead-to-case', 'OL'],
    );
    // Clamped already, the best check is a run.
    const first = session.advice(atBench(seen, 'clamped')).next;
    expect(first.slice(0, 3).map(({ check, reason }) => [check, /^Before it runs/.test(reason)])).deep.equal([
      ['main-to-case', true],
      ['main-to-motor', true],
      ['case-by-eye', true],
    ]);
    // Closed, or with the lead off, what the light wants pays by itself; a starter that clicks has its contacts looked at.
    for (const [assembly, best] of [
      ['closed', 'case-by-eye'],
      ['lead-off', 'contacts-by-eye'],
    ] as const) {
      const { next } = session.advice(atBench(seen, assembly));
      const asked = next.find(({ check }) => check === 'case-by-eye')!;
      expect([next[0]!.check, asked.setupMinutes, /^Before it runs/.test(asked.reason)]).deep.equal([best, 0, false]);
    }
    const danger = typed(...clear.filter(([id]) => id !== 'main-to-motor'), ['main-to-motor', 0.12]);
    const ids = session.advice(atBench(danger, 'closed')).next.map(({ check }) => check);
    const running = session.opened.checks.filter(({ assembly }) => assembly === 'clamped').map(({ id }) => id);
    expect(ids.filter((id) => running.includes(id))).deep.equal([]);
  });
  it('a shop without a brake is advised no braked and no held point', () => {
    const session = unitSession(direct, 'slow-crank', [meter]);
    const readings = typed(...clear, ['battery-rested', 12.65], ['battery-loaded', 10.3]);
    const next = (lacks: readonly 'brake'[]) =>
      session.advice({ ...atBench(readings), lacks }).next.map(({ check }) => check);
    expect(next([]).some((id) => /^(loaded|held)/.test(id))).equal(true);
    expect(next(['brake']).some((id) => /^(loaded|held)/.test(id))).equal(false);
  });
  it('a shop without an oscilloscope is advised no trace', () => {
    const session = unitSession(direct, 'slow-crank', [meter]);
    const readings = typed(
      ...clear,
      ['battery-rested', 12.65],
      ['battery-loaded', 10.3],
      ['whole', 'right'],
      ['no-load-amps', 85],
    );
    const next = (lacks: readonly 'oscilloscope'[]) =>
      session.advice({ ...atBench(readings), lacks }).next.map(({ check }) => check);
    expect(next([])).include('each-turn');
    expect(next(['oscilloscope'])).not.include('each-turn');
  });
  it('asks for the rest of a run before another one, and says what the rest costs', () => {
    const session = unitSession(direct, 'slow-crank', [meter]);
    const next = (last: readonly Typed[], rested?: boolean) => {
      const readings = typed(...clear, ['battery-rested', 12.65], ['battery-loaded', 10.3], ...last);
      return session
        .advice({ ...atBench(readings), rested })
        .next.map(({ check, setupMinutes, reason }) => ({ check, setupMinutes, reason }));
    };
    const runOf = (id: string) => session.opened.checks.find((check) => check.id === id)!.run;
    expect(next([]).map(({ setupMinutes }) => setupMinutes)).not.include(2);
    const after = next([['no-load-amps', 85]]);
    const free = after.filter(({ check }) => runOf(check) === 'free');
    const other = after.filter(({ check }) => ['braked', 'held'].includes(runOf(check) ?? ''));
    expect(free.length).greaterThan(0);
    expect(other.length).greaterThan(0);
    for (const { setupMinutes, reason } of free) {
      expect(setupMinutes).equal(0);
      expect(reason).match(/, nothing to take apart\.$/);
    }
    for (const { setupMinutes, reason } of other) {
      expect(setupMinutes).equal(2);
      expect(reason).match(/, 2 min of rest before another run\.$/);
    }
    expect(next([['no-load-amps', 85]], true).map(({ setupMinutes }) => setupMinutes)).not.include(2);
    const order = after.map(({ check }) => check);
    expect(order.indexOf(free[0]!.check)).lessThan(order.indexOf(other[0]!.check));
  });
  it('a drop over the contacts names them; the bench battery, tested, is cleared', () => {
    const session = unitSession(direct, 'click', [meter]);
    const sound = starterFed(direct, [], 20);
    const free = motorRun(sound.motor, sound.source, { newtonMetres: 0 });
    const readings = typed(
      ...clear,
      ['battery-rested', 12.64],
      ['battery-loaded', sound.source.volts - 350 * sound.source.ohms],
      ['whole', 'right'],
      ['no-load-volts', free.volts],
      ['no-load-amps', Math.round(free.amps)],
      ['contact-drop', 1.25],
    );
    const { suspects } = session.diagnose(atBench(readings));
    expect(suspects[0]!.fault).equal('contacts-burnt');
    expect(suspects[0]!.chance).greaterThan(0.9);
    expect(suspects[0]!.severity).match(/mΩ/);
    expect(suspects.find(({ fault }) => fault === 'bench-battery-weak')?.chance ?? 0).lessThan(0.02);
  });
  it('no torque at the brake and few amps name the drive, which a run without load hides', () => {
    const session = unitSession(direct, 'none', [meter]);
    const slips = (...steps: readonly Typed[]) =>
      session.diagnose(atBench(typed(...steps))).suspects.find(({ fault }) => fault === 'drive-slips')?.chance ?? 0;
    const free: readonly Typed[] = [
      ['no-load-amps', 72],
      ['no-load-rpm', 6800],
    ];
    expect(slips(...free)).lessThan(0.15);
    expect(slips(...free, ['loaded-rpm', 0], ['loaded-amps', 120])).greaterThan(0.9);
    expect(slips(...free, ['loaded-rpm', 2680], ['loaded-amps', 226])).lessThan(0.5 * slips(...free));
  });
  it('of two faults each has its own severity: beside an open brush a dirty commutator moves nothing', () => {
    const { opened } = unitSession(direct, 'none', [meter]);
    const check = opened.checks.find(({ id }) => id === 'no-load-amps')!;
    const faultAt = (id: string) => opened.faults.findIndex((fault) => fault.id === id);
    const [brush, commutator] = [faultAt('brush-worn'), faultAt('commutator-dirty')];
    const particle = opened.particles.find(
      ({ faults, severities }) =>
        faults.length === 2 &&
        faults.includes(brush) &&
        faults.includes(commutator) &&
        severities[faults.indexOf(brush)]! > 1000,
    )!;
    const prediction = opened.predictor({ meter, celsius: 20 }).predict(check, opened.builds[0]!, particle);
    if (prediction.kind !== 'number') throw new TypeError(check.id);
    const slopeOf = (fault: number) => {
      const at = prediction.slope.index.indexOf(opened.dimensions.severity[particle.faults.indexOf(fault)]!);
      return at < 0 ? 0 : Math.abs(prediction.slope.value[at]!);
    };
    expect(slopeOf(brush)).greaterThan(1e-4);
    expect(slopeOf(commutator)).lessThan(1e-3 * slopeOf(brush));
  });
  it('a weak bench battery is a suspect of its own, and no course for the unit mends it', () => {
    const session = unitSession(direct, 'none', [meter]);
    const readings = typed(...clear, ['battery-rested', 12.0], ['battery-loaded', 6.4]);
    const { suspects } = session.diagnose(atBench(readings));
    expect(suspects[0]!.fault).equal('bench-battery-weak');
    expect(suspects[0]!.chance).greaterThan(0.9);
    const { courses } = session.verdict({ ...atBench(readings), prices: { items: {} } });
    expect(courses.flatMap(({ actions }) => actions.map(({ id }) => id))).not.include('bench-battery');
    expect(courses.find(({ id }) => id === 'return')!.barred).match(/bench itself/);
  });
  it('the finding order of a technician who opens it first: the same belief whichever came first', () => {
    const first = typed(
      ['commutator-by-eye', 'bar'],
      ['bar-to-bar', 'high'],
      ['growler', 'still'],
      ['free-turning', 'free'],
      ['motor-to-case', 0.12],
    );
    const chance = (readings: TapeReading[]) =>
      unitSession(direct, 'click', [meter])
        .diagnose(atBench(readings, 'opened'))
        .suspects.find(({ fault }) => fault === 'armature-open')!.chance;
    expect(chance(first)).greaterThan(0.95);
    expect(chance(first.toReversed())).closeTo(chance(first), 2e-3);
  });
});

describe('a starter in the open', () => {
  const file = (machine: unknown, more: object = {}) => ({
    format: 'refectum-job',
    version: 1,
    tag: '1016',
    complaint: 'click',
    machine,
    assembly: 'closed',
    meter: 'bench',
    celsius: 20,
    readings: [],
    prices: { items: {} },
    ...more,
  });
  it('a job file carries it, and gives the assessment that the session gives', () => {
    const readings = typed(['free-turning', 'stiff']).map((one) => ({
      ...one,
      at: '2026-11-25T09:00:00Z',
      technician: 'T. Harle',
    }));
    const job = readJobFile(JSON.stringify(file(planetary, { readings })));
    const assessment = assessJob(job);
    const own = unitSession(planetary, 'click', [meter]).diagnose(atBench(readings, 'closed'));
    expect(assessment.suspects[0]!.fault).equal(own.suspects[0]!.fault);
    expect(assessment.suspects[0]!.chance).closeTo(own.suspects[0]!.chance, 1e-9);
  });
  for (const [name, machine, why] of [
    ['a power out of range', { ...direct, ratedKilowatts: 40 }, /between 0.2 and 15 kW/],
    ['a gear on a direct drive', { ...direct, gearRatio: 4 }, /Without a gear the ratio is 1/],
    ['half a held point', { ...direct, stallAmps: 600 }, /together or not at all/],
    ['another family’s fact', { ...direct, rotorOhms: 3 }, /unknown field/],
    ['a family that is none', { ...direct, family: 'magneto' }, /family must be one of/],
    ['no machine', undefined, /machine is missing/],
  ] as const) {
    it(`refuses ${name}, in words`, () => {
      expect(() => jobFileSchema.validateSync(file(machine), { abortEarly: false, strict: true })).throws(why);
    });
  }
  for (const [what, fact, why] of [
    ['complaint', { complaint: 'overcharge' }, /no complaint of this family: overcharge is none of/],
    ['state of assembly', { assembly: 'unsoldered' }, /no state of assembly of this family: unsoldered is none of/],
  ] as const)
    it(`refuses another family’s ${what}`, () => {
      expect(() => jobFileSchema.validateSync(file(direct, fact), { strict: true })).throws(why);
    });
  it('every layout stands at the door as its plate gives it', () => {
    for (const machine of layouts)
      expect(machineSchema.isValidSync(machine, { strict: true }), machine.layout).equal(true);
  });
});
