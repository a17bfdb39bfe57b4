import type { TapeReading } from '../src/assess/index.ts';
import type { Outcome } from '../src/checks/index.ts';
import { multimeterById } from '../src/instruments/index.ts';
import { type Starter, starterGeneric } from '../src/machines/index.ts';

export const meter = multimeterById('bench');
export const layouts: readonly Starter[] = [
  starterGeneric(12, 1.4, 'direct'),
  starterGeneric(24, 5.5, 'reduction'),
  starterGeneric(12, 1.1, 'planetary'),
  starterGeneric(12, 0.9, 'inertia'),
];
export const [direct, reduction, planetary, inertia] = layouts as [Starter, Starter, Starter, Starter];

export type Typed = readonly [check: string, result: number | string];
export const typed = (...steps: readonly Typed[]): TapeReading[] =>
  steps.map(([check, result], n) => ({
    id: String(n),
    check,
    outcome: (result === 'OL'
      ? { kind: 'over-range' }
      : typeof result === 'number'
        ? { kind: 'value', value: result }
        : { kind: 'finding', finding: result }) as Outcome,
    meter: 'bench',
    celsius: 20,
  }));
export const atBench = (readings: readonly TapeReading[], assembly = 'clamped') => ({
  readings,
  assembly,
  meter: 'bench',
  celsius: 20,
});
