import type { Gate } from '@refectum/core/assess';
import type { OutputPoint } from '@refectum/core/curves';

/** A step of a session on the run stand; the log only grows. */
export type RunStep =
  | ({ readonly kind: 'point' } & OutputPoint)
  | { readonly kind: 'struck'; readonly step: string }
  /** Run against a red light: why, and the ids of the reasons that it gave. */
  | { readonly kind: 'released'; readonly why: string; readonly against: readonly string[] };

export interface TakenRunStep {
  readonly id: string;
  readonly at: string;
  readonly step: RunStep;
  readonly technician: string;
  /** The round of the unit's work it belongs to. */
  readonly round: number;
}

/** A point of the output test as it stands on the log. */
export interface TakenPoint extends OutputPoint {
  readonly id: string;
}

export interface RunLog {
  readonly points: readonly TakenPoint[];
  readonly released: TakenRunStep | undefined;
  readonly answeredFor: readonly string[];
}

/** What a round's steps come to: the points that stand, the newest release, and all reasons that were answered for. */
export function readRunLog(steps: readonly TakenRunStep[], round: number): RunLog {
  const own = steps.filter((one) => one.round === round);
  const struck = new Set(own.flatMap(({ step }) => (step.kind === 'struck' ? [step.step] : [])));
  const points = own.flatMap(({ id, step }): TakenPoint[] => {
    if (step.kind !== 'point' || struck.has(id)) return [];
    const { kind: _, ...point } = step;
    return [{ id, ...point }];
  });
  return {
    points,
    released: own.findLast(({ step }) => step.kind === 'released'),
    answeredFor: own.flatMap(({ step }) => (step.kind === 'released' ? step.against : [])),
  };
}

/** Whether a unit may run: green, or somebody has answered for every reason against it. */
export const mayRun = (gate: Gate, { answeredFor }: Pick<RunLog, 'answeredFor'>): boolean =>
  gate.reasons.every(({ id }) => answeredFor.includes(id));
