import { multimeterById } from '@refectum/core/instruments';
import { VehicleSession } from '@refectum/core/assess';
import type { Teller } from '@refectum/core/belief';
import { vehicleGeneric } from '@refectum/core/vehicle';
import { expect } from 'chai';
import { complaintName, originOf, standing, tagFacts, type TakenReading, vehicleOf } from '../src/lib/job.ts';
import { jobWith, taken } from './job.ts';
import { labelSize, labelSizes } from '../src/lib/labels.ts';
import { letterOf } from '../src/lib/letter.ts';
import { standIds, stands } from '../src/lib/stands.ts';

const letter = (readings: readonly TakenReading[], complaint = 'no-charge') => {
  const job = jobWith(readings, { complaint });
  const session = new VehicleSession(vehicleOf(job), job.machine, job.complaint, [multimeterById('workshop')]);
  const assessed = session.assessVehicle({ ...job, assembly: 'parked', readings: originOf(job).readings });
  return { ...letterOf(job, assessed), course: assessed.blame.course };
};

describe('the letter to the customer', () => {
  const link = [
    taken('rested-volts', 12.05),
    taken('battery-raised', 11.9),
    taken('post-raised', 14.3),
    taken('drop-charge', 2.4),
    taken('plug-ignition', 'live'),
    taken('belt', 'tight'),
    taken('noise', 'quiet'),
    taken('ripple', 'small'),
  ];

  it('returns the unit with what to look at, each suspect with what to do about it', () => {
    const { course, verdict, lookAt, found } = letter(link);
    expect(course).equal('return');
    expect(verdict).match(/return it as it is/);
    expect(lookAt.join('\n')).match(/Fuse or fusible link blown: find what blew the fuse/);
    expect(found.map(({ shown }) => shown.replaceAll('\u202f', ' '))).include('14.3 V');
  });
  it('never tells the customer to mend the unit: its faults are ours', () => {
    const { course, verdict, lookAt } = letter(
      [taken('drain', 0.6), taken('drain-cable-off', 0.03)],
      'drains-overnight',
    );
    expect(course).equal('bench');
    expect(verdict).match(/point at the unit itself/);
    expect(lookAt.join('\n')).not.match(/diode|insulator/);
  });
  it('says that nothing is settled when nothing is known', () => {
    const { course, verdict, found } = letter([]);
    expect(course).equal('ask');
    expect(verdict).match(/does not settle/);
    expect(found).deep.equal([]);
  });
  it('always carries the cautions', () => {
    for (const { cautions } of [letter([]), letter(link)]) {
      expect(cautions.at(-1)).equal('Local codes and the maker’s manual come first.');
      expect(cautions.join()).match(/Never take the battery off/);
    }
  });
  it('what was told alone returns nothing', () => {
    for (const told of ['customer', 'shop'] satisfies Teller[]) {
      expect(letter(link.map((reading) => ({ ...reading, told }))).course, told).not.equal('return');
    }
  });
});

describe('a job and its places', () => {
  const job = jobWith([
    taken('drain', 0.6),
    taken('ring-ring', 3.1, { place: 'bench' }),
    taken('ring-core', 3.1, { place: 'bench', struck: { at: '2026-05-04T08:40:00Z', technician: 'Tovik Harle' } }),
    taken('belt', 'slack', { told: 'customer' }),
  ]);
  it('keeps the readings of bench and vehicle apart, and those struck out of both', () => {
    expect(standing(job, 'bench').map(({ check }) => check)).deep.equal(['ring-ring']);
    expect(standing(job, 'vehicle').map(({ check }) => check)).deep.equal(['drain', 'belt']);
    expect(tagFacts(job).readings).equal(1);
  });
  it('gives the reasoning what it needs of the vehicle: who told what, and the plate’s volts and amps', () => {
    const { vehicle, readings } = originOf(job);
    expect(vehicle).deep.equal(vehicleGeneric(12, 70));
    expect(readings.map(({ check, told }) => [check, told])).deep.equal([
      ['drain', 'own'],
      ['belt', 'customer'],
    ]);
    const large = { ...vehicleGeneric(24, 90), crankingAmps: 900 };
    expect(originOf({ ...job, vehicle: large }).vehicle.crankingAmps).equal(900);
  });
  it('names complaints and stands once each; a label of a size that is none gets the first', () => {
    expect(complaintName('slow-crank')).equal('Slow crank');
    expect(complaintName('unheard of')).equal('unheard of');
    expect(new Set(standIds).size).equal(stands.length);
    expect(labelSize('102x51')).deep.include({ width: 102, height: 51 });
    expect(labelSize('1x1')).equal(labelSizes[0]);
  });
});
