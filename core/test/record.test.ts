import { multimeterById } from '../src/instruments/index.ts';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { expect } from 'chai';
import { assessJob, unitSession } from '../src/assess/index.ts';
import { clawPoleGeneric, clawPoleNumbers, factValue, familyOf } from '../src/machines/index.ts';
import { type JobFile, JobFileError, jobFileJsonSchema, readJobFile, writeJobFile } from '../src/record/index.ts';

const job = (): JobFile => ({
  format: 'refectum-job',
  version: 1,
  tag: '1001',
  customer: 'Island Buses',
  model: 'unknown',
  complaint: 'no-charge',
  words: 'dead after a night',
  machine: clawPoleGeneric(12, 90),
  assembly: 'closed',
  meter: 'workshop',
  celsius: 20,
  readings: [
    {
      id: 'r1',
      check: 'bridge-forward',
      outcome: { kind: 'value', value: 0.476 },
      meter: 'workshop',
      celsius: 20,
      at: '2026-05-04T08:30:00Z',
      technician: 'Wenna',
      struck: undefined,
    },
    {
      id: 'r2',
      check: 'field-turning',
      outcome: { kind: 'finding', finding: 'steady' },
      meter: 'workshop',
      celsius: 20,
      at: '2026-05-04T08:31:00Z',
      technician: 'Wenna',
      struck: { at: '2026-05-04T08:32:00Z', technician: 'Tovik' },
    },
  ],
  unlikeShare: 0.148,
  prices: {
    labourPerHour: 48,
    exchange: undefined,
    core: undefined,
    comeback: undefined,
    items: { rectifier: { price: 44 } },
  },
});
/** The job with one thing changed at a path. */
function broken(path: string, put: unknown): string {
  const copy = JSON.parse(writeJobFile(job())) as Record<string, unknown>;
  const steps = path.split('.');
  const last = steps.pop()!;
  const at = steps.reduce<Record<string, unknown>>((o, step) => o[step] as Record<string, unknown>, copy);
  if (put === undefined) delete at[last];
  else at[last] = put;
  return JSON.stringify(copy);
}
const problemsOf = (text: string): readonly string[] => {
  try {
    readJobFile(text);
    return [];
  } catch (error) {
    if (error instanceof JobFileError) return error.problems;
    throw error;
  }
};

describe('record: the job file', () => {
  const validate = new Ajv2020({ strict: true, formats: { 'date-time': true } }).compile(jobFileJsonSchema);

  it('reads what it wrote', () => expect(writeJobFile(readJobFile(writeJobFile(job())))).equal(writeJobFile(job())));
  it('what it writes fits the published schema', () => {
    expect(validate(JSON.parse(writeJobFile(job()))), JSON.stringify(validate.errors)).equal(true);
  });
  it('a fact that was asked for later than the first files may be missing, and is what it was then', () => {
    const old = broken('machine.regulator', undefined);
    expect(validate(JSON.parse(old)), JSON.stringify(validate.errors)).equal(true);
    const { machine } = readJobFile(old);
    const fact = familyOf(machine).facts.find(({ id }) => id === 'regulator')!;
    expect(factValue(machine, fact)).equal('built-in');
  });
  const wrong: readonly (readonly [string, unknown, RegExp])[] = [
    ['version', 2, /version.*only version 1/],
    ['machine.rotorOhms', -0.3, /machine\.rotorOhms: Rotor.*between 0\.5 and 60 Ω.*-0\.3/],
    ['machine.ratedVolts', 6, /12 or 24/],
    ['machine.spare', 1, /unknown field/],
    ['machine.regulator', 'clockwork', /Regulator must be one of built-in, commanded/],
    ['machine.connection', 'triangle', /star, delta, unknown/],
    ['complaint', 'sulks', /complaint/],
    ['readings.0.outcome', { kind: 'value', value: 'half' }, /readings\[0\]\.outcome/],
    ['readings.0.outcome', { kind: 'sulks' }, /changes and no-access/],
    ['readings.0.round', 0, /round/],
    ['works', [{ fitted: 'rotor' }], /works/],
    ['readings.0.celsius', 900, /celsius/],
    ['prices.exchange', -5, /exchange/i],
    ['unlikeShare', 0, /unlikeShare: a share is more than 0 — got 0/],
    ['unlikeShare', 1, /unlikeShare: a share is less than 1 — got 1/],
    ['tag', undefined, /tag/],
  ];
  for (const [path, put, told] of wrong) {
    it(`${path} = ${JSON.stringify(put)} is refused by both schemas, with its path`, () => {
      const text = broken(path, put);
      expect(problemsOf(text).join('\n')).match(told);
      expect(validate(JSON.parse(text))).equal(false);
    });
  }
  it('a meter that is neither one of the kinds nor described is refused; described, it is read with', () => {
    const borrowed = { ...multimeterById('bench'), id: 'borrowed', name: 'Borrowed' };
    const strange = broken('meter', 'borrowed');
    expect(problemsOf(strange).join()).match(/“borrowed” is neither one of pocket, workshop, bench/);
    const told = JSON.stringify({ ...(JSON.parse(strange) as object), meters: [borrowed] });
    expect(validate(JSON.parse(told)), JSON.stringify(validate.errors)).equal(true);
    const { next } = assessJob(readJobFile(told));
    expect(next.length).greaterThan(0);
  });
  it('a round that follows no work is refused', () => {
    expect(problemsOf(broken('readings.0.round', 2)).join()).match(/round 2 follows no work/);
  });
  it('names every problem at once, and says so when it is not JSON', () => {
    const copy = JSON.parse(broken('machine.rotorOhms', 0)) as { celsius: number };
    copy.celsius = 500;
    expect(problemsOf(JSON.stringify(copy)).length).equal(2);
    expect(problemsOf('{"format":')[0]).match(/not JSON/);
  });
});

describe('record: the vehicle in the job file', () => {
  const origin: NonNullable<JobFile['origin']> = {
    vehicle: {
      ratedVolts: 12,
      battery: 'flooded',
      crankingAmps: 600,
      ampHours: 60,
      machineAmps: 90,
      engineLitres: 1.6,
      fuel: 'diesel',
    },
    readings: (
      [
        ['battery-raised', 12],
        ['post-raised', 14.3],
      ] as const
    ).map(([check, value]) => ({
      id: check,
      check,
      outcome: { kind: 'value' as const, value },
      meter: 'workshop',
      celsius: 20,
      at: '2026-05-04T08:30:00Z',
      technician: 'Tovik Harle',
      struck: undefined,
      told: 'own' as const,
    })),
  };
  it('reads what it wrote, and it is where the bench begins', () => {
    const whole = { ...job(), origin };
    const again = readJobFile(writeJobFile(whole));
    expect(again.origin).deep.equal(JSON.parse(JSON.stringify(origin)));
    expect(assessJob(again).sound).greaterThan(2 * assessJob(job()).sound);
  });
  it('refuses a vehicle that is none, and a teller that nobody is, with the path', () => {
    const bad = JSON.parse(writeJobFile({ ...job(), origin })) as { origin: typeof origin };
    const broken = { ...bad, origin: { ...bad.origin, vehicle: { ...bad.origin.vehicle, crankingAmps: 5 } } };
    expect(problemsOf(JSON.stringify(broken)).join()).match(/origin\.vehicle\.crankingAmps.*between 50 and 3000 A/);
    const steam = {
      ...bad,
      origin: { ...bad.origin, vehicle: { ...bad.origin.vehicle, engineLitres: 0, fuel: 'coal' } },
    };
    expect(problemsOf(JSON.stringify(steam)).join())
      .match(/origin\.vehicle\.engineLitres.*between 0\.1 and 40 l/)
      .and.match(/origin\.vehicle\.fuel.*petrol or diesel — got coal/);
    const [first, ...rest] = bad.origin.readings;
    const gossip = { ...bad, origin: { ...bad.origin, readings: [{ ...first, told: 'neighbour' }, ...rest] } };
    expect(problemsOf(JSON.stringify(gossip)).join()).match(/origin\.readings\[0\]\.told/);
  });
});

describe('assess: a job file alone', () => {
  it('leaves struck readings out, and gives plain data', () => {
    const assessment = assessJob(job());
    expect(assessment.readings.map((r) => r.id)).deep.equal(['r1']);
    expect(JSON.parse(JSON.stringify(assessment))).deep.equal(JSON.parse(JSON.stringify(assessJob(job()))));
    expect(assessment.suspects.length).greaterThan(3);
  });
  it('warm and cold sessions agree: readings one by one, or all at once', () => {
    const readings = [
      ['bridge-forward', { kind: 'value', value: 0.93 }],
      ['leads-null', { kind: 'value', value: 0.3 }],
      ['field-ohms', { kind: 'value', value: 3.4 }],
    ].map(([check, outcome], i) => ({
      id: `r${i}`,
      check,
      outcome,
      meter: 'workshop',
      celsius: 20,
    })) as JobFile['readings'];
    const situation = { assembly: 'closed', meter: 'workshop', celsius: 20, prices: { items: {} } };
    const warm = unitSession(job().machine, 'no-charge', [multimeterById('workshop')]);
    readings.forEach((_, i) => warm.assess({ ...situation, readings: readings.slice(0, i + 1) }));
    const one = warm.assess({ ...situation, readings });
    const other = unitSession(job().machine, 'no-charge', [multimeterById('workshop')]).assess({
      ...situation,
      readings,
    });
    expect(one.suspects.map((s) => s.fault)).deep.equal(other.suspects.map((s) => s.fault));
    one.suspects.forEach((s, i) => expect(s.chance).closeTo(other.suspects[i]!.chance, 1e-9 * s.chance));
    expect(one.verdict).deep.equal(other.verdict);
  });
  it('subtracts the leads, and doubts a reading well below their null', () => {
    const take = (check: string, ohms: number) => ({
      id: check,
      check,
      outcome: { kind: 'value', value: ohms } as const,
      meter: 'workshop',
      celsius: 20,
    });
    const session = unitSession(job().machine, 'none', [multimeterById('workshop')]);
    const judge = (ohms: number) =>
      session.assess({
        readings: [take('leads-null', 1.5), take('ring-ring', ohms)],
        assembly: 'opened',
        meter: 'workshop',
        celsius: 20,
        prices: { items: {} },
      }).readings[1]!;
    // Rectangular: 0.8 % of each and 2 counts of 0.1 Ω by √3, rounding by √12; twice the root of their squares.
    expect(judge(4.6).net!.replaceAll('\u202f', ' ')).equal('3.10 ± 0.34 Ω without leads');
    expect(judge(0.2).net!.replaceAll('\u202f', ' ')).equal('0.00 ± 0.34 Ω without leads');
    expect(judge(4.6).repeat).equal(undefined);
    expect(judge(0.2).repeat).match(/check the leads/);
  });
  it('every number a machine is described by has a range and a source', () => {
    for (const [name, parameter] of Object.entries(clawPoleNumbers)) {
      expect(parameter.source, name).match(/\w{4}/);
      expect(parameter.most, name).greaterThan(parameter.least);
    }
  });
});
