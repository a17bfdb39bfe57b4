import { multimeters } from '@refectum/core/instruments';
import { clawPoleGeneric } from '@refectum/core/machines';
import type { Job, TakenReading } from '../src/lib/job.ts';

/** Jobs made for tests. */

/** A reading on the vehicle: a number, or a finding by its id. */
export const taken = (check: string, result: number | string, more: Partial<TakenReading> = {}): TakenReading => ({
  id: `${check} ${result}`,
  place: 'vehicle',
  told: 'own',
  check,
  typed: String(result),
  outcome: typeof result === 'number' ? { kind: 'value', value: result } : { kind: 'finding', finding: result },
  meter: 'workshop',
  celsius: 20,
  at: '2026-05-04T08:30:00Z',
  technician: 'Ansa Brimmel',
  round: 1,
  ...more,
});

export const jobWith = (readings: readonly TakenReading[], more: Partial<Job> = {}): Job => ({
  id: '00000000-0000-4000-8000-000000000001',
  tag: 1013,
  customer: 'Post van',
  model: 'Norvik 14-70',
  serial: '',
  complaint: 'no-charge',
  words: '',
  due: null,
  machine: clawPoleGeneric(12, 70),
  plate: { direction: '', pulley: '', connector: '', cameWith: '' },
  stand: 'in',
  assembly: 'closed',
  meter: 'workshop',
  celsius: 20,
  prices: { items: {} },
  vehicle: null,
  variants: [],
  unlikeShare: 0.05,
  knownGood: false,
  works: [],
  meters: multimeters.map((known) => ({ known, calibratedOn: null, everyMonths: null, retired: false })),
  checkedInAt: '2026-05-04T08:00:00Z',
  technician: 'Ansa Brimmel',
  readings,
  verdicts: [],
  moves: [],
  drain: [],
  runs: [],
  ...more,
});
