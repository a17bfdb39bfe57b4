import type { OutputPoint } from '@refectum/core/curves';

/** A step of a session on the run stand; the log only grows. */
export type RunStep =
  | ({ readonly kind: 'point' } & OutputPoint)
  | { readonly kind: 'struck'; readonly step: string }
  /** Run against a red light: why, and what it said. */
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

/** What a round's steps come to: the points that stand, and the newest release. */
export function readRunLog(
  steps: readonly TakenRunStep[],
  round: number,
): { readonly points: readonly TakenPoint[]; readonly released: TakenRunStep | undefined } {
  const own = steps.filter((one) => one.round === round);
  const struck = new Set(own.flatMap(({ step }) => (step.kind === 'struck' ? [step.step] : [])));
  const points = own.flatMap(({ id, step }): TakenPoint[] => {
    if (step.kind !== 'point' || struck.has(id)) return [];
    const { kind: _, ...point } = step;
    return [{ id, ...point }];
  });
  return { points, released: own.findLast(({ step }) => step.kind === 'released') };
}
