import type { BenchSituation, TapeReading } from '../src/assess/index.ts';
import type { Outcome } from '../src/checks/index.ts';
import { type ClawPole, clawPoleGeneric } from '../src/machines/index.ts';

export const known: ClawPole = { ...clawPoleGeneric(12, 90), connection: 'star', diodeKind: 'silicon' };
/** A reading of a tape. */
export const take = (check: string, outcome: number | 'OL' | { finding: string }, meter = 'workshop'): TapeReading => ({
  id: `${check} ${JSON.stringify(outcome)}`,
  check,
  outcome:
    outcome === 'OL'
      ? { kind: 'over-range' }
      : typeof outcome === 'number'
        ? { kind: 'value', value: outcome }
        : ({ kind: 'finding', ...outcome } as Outcome),
  meter,
  celsius: 20,
});
export const situation = (readings: readonly TapeReading[], more: Partial<BenchSituation> = {}): BenchSituation => ({
  readings,
  assembly: 'closed',
  meter: 'workshop',
  celsius: 20,
  prices: { items: {} },
  ...more,
});
