/** Work that may be broken off between any two of its steps. */
export type Steps<Result> = Generator<undefined, Result>;

/** All of it at once. */
export function atOnce<Result>(steps: Steps<Result>): Result {
  let step = steps.next();
  while (!step.done) step = steps.next();
  return step.value;
}
