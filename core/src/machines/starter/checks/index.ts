import { type Check, leadsNull } from '../../../checks/index.ts';
import { heldNewtonMetres } from '../motor.ts';
import type { Starter } from '../parameters.ts';
import { closedChecks, leadOffChecks } from './at-rest.ts';
import { coverOffChecks } from './cover-off.ts';
import { onBenchChecks } from './on-bench.ts';
import { openedChecks } from './opened.ts';

/** In the order of work. */
export const starterChecks = (machine: Starter): readonly Check[] => [
  ...leadsNull(),
  ...closedChecks(machine),
  ...leadOffChecks(machine),
  ...onBenchChecks(machine, heldNewtonMetres(machine)),
  ...coverOffChecks(machine),
  ...openedChecks(machine),
];
