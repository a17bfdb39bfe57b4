import { multimeterById } from '@refectum/core/instruments';
import { unitSession, VehicleSession } from '@refectum/core/assess';
import { starterGeneric } from '@refectum/core/machines';
import { expect } from 'chai';
import { backTo } from '../src/lib/back-to.ts';
import { dayAndTimeOf, dayOf, daysBeside, timeOf, whenOf } from '../src/lib/dates.ts';
import { type Job, originOf, standing, tapeReading, vehicleOf } from '../src/lib/job.ts';
import { findingsLines, identityLines, reportCautions, vehicleLines } from '../src/lib/report.ts';
import { jobWith, taken } from './job.ts';

const line = (job: Job, name: string): string | undefined =>
  identityLines(job)
    .find(([title]) => title === name)?.[1]
    .replaceAll(/[\u202f\u2009]/g, ' ');
const onBench = { place: 'bench' } as const;
const vehicle = (job: Job) => {
  const session = new VehicleSession(vehicleOf(job), job.machine, job.complaint, [multimeterById('workshop')]);
  const assessed = session.assessVehicle({ ...job, assembly: 'parked', readings: originOf(job).readings });
  return vehicleLines(job, assessed);
};

describe('the report in words', () => {
  it('identifies the unit: what was not read is said, not left out', () => {
    const job = jobWith([]);
    expect(line(job, 'Serial number')).equal('not read');
    expect(line(job, 'Rating')).equal('12 V, 70 A');
    expect(line(job, 'Build')).equal(
      'Claw-pole alternator; stator not known; rectifier diodes six; diode kind not known; exciter diodes three; field circuit ground side; regulator built in',
    );
    expect(line(job, 'Measured with')).equal('nothing yet');
    expect(line(job, 'Plate')).equal(undefined);
    expect(line(job, 'Reckoned with')).match(
      /^stator, lead to lead 0\.120.Ω; rotor winding, ring to ring 3\.00.Ω; brush, new 10\.0.mm; .*, at 20.°C$/,
    );
    const starter = jobWith([], { machine: starterGeneric(24, 5.5, 'reduction') });
    expect(line(starter, 'Rating')).match(/^24.V, 5\.5.kW$/);
    expect(line(starter, 'Build')).equal('Starter; drive and field reduction gear, wound field');
    expect(line(starter, 'Reckoned with')).match(/gear ratio 3\.4.*; pull-in winding 1\.80.Ω/);
  });
  it('says what else is on the plate and how the complaint sounded', () => {
    const plate = {
      direction: 'clockwise',
      pulley: 'decoupler',
      connector: 'two pins',
      cameWith: 'half a bracket',
    } as const;
    const job = jobWith([], { plate, words: 'dead since Monday' });
    expect(line(job, 'Plate')).equal('turns clockwise; decoupler pulley; connector two pins; came with half a bracket');
    expect(line(job, 'Complaint')).equal('No charge: dead since Monday');
  });
  it('names meters and temperatures of the readings that stand, each once', () => {
    const job = jobWith([
      taken('ring-ring', 3.1, onBench),
      taken('ring-core', 3.1, { ...onBench, meter: 'bench', celsius: 35 }),
      taken('field-ohms', 3.3, {
        ...onBench,
        meter: 'pocket',
        struck: { at: '2026-05-04T08:40:00Z', technician: 'A' },
      }),
      taken('drain', 0.1),
    ]);
    expect(line(job, 'Measured with')).equal('Workshop meter, Bench meter; part at 20 °C, 35 °C');
  });
  it('lists the parts under their words, the worst first, each part once', () => {
    const job = jobWith([taken('brush-length', 1.5, onBench), taken('field-turning', 'never', onBench)]);
    const session = unitSession(job.machine, job.complaint, [multimeterById('workshop')]);
    const assessment = session.assess({ ...job, readings: standing(job, 'bench').map(tapeReading) });
    const lines = findingsLines(assessment);
    const order = ['failed', 'doubtful', "can't tell", 'sound', 'not looked at'];
    const words = lines.map(({ word }) => word);
    expect(words).deep.equal(order.filter((word) => words.includes(word)));
    expect(lines.find(({ word }) => word === 'failed')!.names).contain('Brushes');
    const names = lines.flatMap((one) => one.names.split(', ')).join(', ');
    expect(names).equal(
      order.flatMap((word) => assessment.parts.filter((part) => part.word === word).map(({ name }) => name)).join(', '),
    );
  });
  it('tells the vehicle’s readings with who told them; nothing when nobody asked', () => {
    expect(vehicle(jobWith([]))).equal(undefined);
    const lines = vehicle(jobWith([taken('rested-volts', 12.05), taken('lamp', 'stays', { told: 'customer' })]))!;
    expect(lines.readings.map(({ text }) => text.replaceAll(/[\u202f\u2009]/g, ' '))).deep.equal([
      'Battery volts, rested: 12.05 V, failed',
      'Charge lamp with the key: Stays on when running, failed (told by the customer)',
    ]);
    expect(lines.conclusion).not.equal('');
  });
  it('tells a drain that was followed, also when nothing else was read', () => {
    const at = (minute: number) => new Date(Date.UTC(2026, 4, 4, 8, minute)).toISOString();
    const drain = [
      { id: 'a', at: at(0), technician: 'A', step: { kind: 'shut' } },
      { id: 'b', at: at(40), technician: 'A', step: { kind: 'now', amps: 0.5 } },
      { id: 'c', at: at(41), technician: 'A', step: { kind: 'out', circuit: 'F7', amps: 0.03, leftOut: false } },
    ] as const;
    expect(vehicle(jobWith([], { drain }))!.readings.map(({ text }) => text)).deep.equal([
      'Drain, fuse by fuse: Of 0.500 A, “F7” (0.470 A): that explains it, 0.030 A is left.',
    ]);
  });
  it('carries the cautions of every report', () => {
    expect(reportCautions[0]).match(/Local codes, the maker’s manual/);
    expect(reportCautions.join(' ')).match(/Never take the battery off a running machine/);
  });
});

describe('back to where one was', () => {
  const to = (back?: string) => {
    const form = new FormData();
    if (back !== undefined) form.set('back', back);
    return backTo(form);
  };
  it('goes to paths of this application, with their questions', () => {
    for (const path of ['/', '/unit/1004', '/?find=crane', '/unit/1004/vehicle/drain']) expect(to(path)).equal(path);
  });
  it('goes nowhere else, however it is dressed', () => {
    for (const path of [
      '//elsewhere.example',
      '/\\elsewhere.example',
      'http://elsewhere.example',
      'javascript:alert(1)',
      '',
      ' /',
    ])
      expect(to(path), path).equal('/');
    expect(to()).equal('/');
  });
});

describe('dates as the shop writes them', () => {
  it('a day with its weekday, a time of day, both', () => {
    const today = new Date(2026, 10, 30, 18, 0);
    expect(dayOf('2026-11-24', today)).equal('Tue 24 Nov');
    expect(dayOf('2025-11-24', today)).equal('Mon 24 Nov 2025');
    const noon = new Date(2026, 4, 4, 12, 5).toISOString();
    expect([timeOf(noon), dayAndTimeOf(noon)]).deep.equal(['12:05', '4 May 2026, 12:05']);
  });
  it('the day beside a time only where it isn’t clear', () => {
    const at = (day: number, hour: number) => new Date(2026, 10, day, hour, 5).toISOString();
    const today = new Date(2026, 10, 30, 18, 0);
    expect([at(30, 9), at(29, 9)].map((one) => whenOf(one, today))).deep.equal(['09:05', 'Sun 29 Nov, 09:05']);
    const [first, second] = [dayOf(at(29, 9)), dayOf(at(30, 9))];
    expect(daysBeside([at(29, 9), at(29, 11), at(30, 9)])).deep.equal([first, '', second]);
    expect(daysBeside([at(30, 9), at(29, 11), at(29, 9)], today)).deep.equal(['', first, '']);
    expect(daysBeside([])).deep.equal([]);
  });
});
