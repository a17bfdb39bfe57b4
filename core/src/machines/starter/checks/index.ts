import { type Check, leadsNull } from '../../../checks/index.ts';
import { motorRun } from '../../../curves/index.ts';
import { starterFed } from '../motor.ts';
import type { Starter } from '../parameters.ts';
import { closedChecks, leadOffChecks } from './at-rest.ts';
import { onBenchChecks } from './on-bench.ts';
import { openedChecks } from './opened.ts';

/** In the order of work. */
export function starterChecks(machine: Starter): readonly Check[] {
  const { motor, source } = starterFed(machine, [], 20);
  const { newtonMetres } = motorRun(motor, source, 'held');
  return [
    ...leadsNull(),
    ...closedChecks(machine),
    ...leadOffChecks(machine),
    ...onBenchChecks(machine, newtonMetres),
    ...openedChecks(machine),
  ];
}
