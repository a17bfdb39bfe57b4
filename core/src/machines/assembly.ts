import type { Check } from '../checks/index.ts';

/** State of assembly, with the minutes of work from the state before it. */
export interface AssemblyState {
  readonly id: string;
  readonly name: string;
  readonly minutes: number;
  /** It runs there, and needs a green light first. */
  readonly running?: true;
  /** What is done there is advised once the machine is there, never before. */
  readonly whenThere?: true;
  /** What it rests there between two runs. */
  readonly restMinutes?: number;
}

/** The state that a machine comes in. */
export const asReceived = (assemblies: readonly AssemblyState[]): AssemblyState =>
  assemblies.find(({ running }) => !running)!;

/** The state that a check is done in: as the unit is, where that will do, else the nearest that does. */
export function stateFor(
  assemblies: readonly AssemblyState[],
  now: string,
  { assembly, upTo = assembly }: Pick<Check, 'assembly' | 'upTo'>,
): string {
  if (assembly === '') return now;
  const at = (id: string) => assemblies.findIndex((state) => state.id === id);
  if (at(now) < at(assembly)) return assembly;
  return at(now) > at(upTo) ? upTo : now;
}
