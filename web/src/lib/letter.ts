import type { VehicleAssessment } from '@refectum/core/assess';
import { readDrainLog, vehicleSubject } from '@refectum/core/vehicle';
import { type Job, vehicleOf } from './job.ts';

/** What a letter to the customer says, ready to be printed. */
export interface Letter {
  readonly verdict: string;
  /** Each check with its reading and word. */
  readonly found: readonly {
    readonly id: string;
    readonly name: string;
    readonly shown: string;
    readonly word: string;
  }[];
  /** What to look at on the vehicle, likeliest first. */
  readonly lookAt: readonly string[];
  /** What following a drain fuse by fuse came to; empty when nobody did. */
  readonly drain: string;
  readonly cautions: readonly string[];
}

/** A suspect less likely than this is not worth the customer's time. */
const worthNaming = 0.08;

const verdicts: Readonly<Record<VehicleAssessment['blame']['course'], string>> = {
  return:
    'We found nothing that speaks against the unit, and the vehicle’s own readings explain the complaint. We return it as it is: fitting another would not mend the vehicle.',
  bench: 'The readings point at the unit itself. We will test it on the bench and tell you what it needs.',
  clear: 'The readings on the vehicle do not settle whether the unit is at fault. We will test it on the bench.',
  ask: 'What we know so far does not settle where the fault lies. The points below are what we suggest to look at next.',
};

const always: readonly string[] = [
  'Never take the battery off while the engine runs: it can break regulator, diodes and control units.',
  'Battery negative off before any cable is touched; charge batteries with air around them, no flame.',
  'A new unit on a flat battery is overloaded at once: charge the battery first.',
  'Local codes and the maker’s manual come first.',
];

export function letterOf(job: Job, { suspects, readings, blame }: VehicleAssessment): Letter {
  const { subject } = vehicleSubject(vehicleOf(job), job.machine, job.complaint);
  const lookAt = suspects
    .filter(({ chance, part }) => chance >= worthNaming && part !== 'unit')
    .map(({ fault, name }) => `${capital(name)}: ${subject.faults.find(({ id }) => id === fault)!.repair!}.`);
  return {
    verdict: verdicts[blame.course],
    found: readings.map(({ id, name, shown, word }) => ({ id, name, shown, word })),
    lookAt,
    drain: readDrainLog(job.drain).conclusion,
    cautions: always,
  };
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
