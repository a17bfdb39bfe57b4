import type { Check } from '../checks/index.ts';
import { stateFor, type Subject } from '../machines/index.ts';

type States = Pick<Subject, 'assemblies'>;

/** Where a unit stands. */
export interface Whereabouts {
  /** Its state of assembly. */
  readonly assembly: string;
  /** The run that just showed something. */
  readonly run?: string | undefined;
  /** What it has to rest yet before another one. */
  readonly restMinutes?: number;
}

/** What comes before a check, once for all that it is needed for. */
export interface Preparation {
  /** Nothing, taking apart or putting back, or the rest before another run. */
  readonly kind: 'none' | 'way' | 'rest';
  /** The state of assembly, or the run: the same for all checks that share it. */
  readonly for: string;
  readonly minutes: number;
}

type Done = Pick<Check, 'assembly' | 'upTo' | 'run' | 'minutes'>;

export function preparationOf(subject: States, here: Whereabouts, check: Omit<Done, 'minutes'>): Preparation {
  const { run } = check;
  const state = stateFor(subject.assemblies, here.assembly, check);
  if (state !== here.assembly) return { kind: 'way', for: state, minutes: wayMinutes(subject, here.assembly, state) };
  const minutes = run === undefined || run === here.run ? 0 : (here.restMinutes ?? 0);
  return { kind: minutes > 0 ? 'rest' : 'none', for: run ?? '', minutes };
}

/** Where a check leaves a unit: after a run it has to rest, meanwhile something else may be done. */
export function whereAfter(subject: States, here: Whereabouts, check: Done): Whereabouts {
  const assembly = stateFor(subject.assemblies, here.assembly, check);
  if (check.run !== undefined)
    return { assembly, run: check.run, restMinutes: subject.assemblies.find(({ id }) => id === assembly)?.restMinutes };
  const passed = wayMinutes(subject, here.assembly, assembly) + check.minutes;
  return { assembly, restMinutes: Math.max((here.restMinutes ?? 0) - passed, 0) };
}

/** Minutes from one state of assembly to another; `''` fits any. */
export function wayMinutes({ assemblies }: States, from: string, to: string): number {
  const at = (id: string) => assemblies.findIndex((state) => state.id === id);
  if (to === '' || from === to) return 0;
  const [low, high] = [at(from), at(to)].sort((x, y) => x - y) as [number, number];
  return assemblies.slice(low + 1, high + 1).reduce((sum, state) => sum + state.minutes, 0);
}
