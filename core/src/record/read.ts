import { ValidationError } from 'yup';
import { type JobFile, JobFileError, jobFileSchema } from './job-file.ts';

/**
 * Reads a job file's text. Strict: nothing is converted or mended.
 *
 * @throws JobFileError with one line for each problem: path, rule, what was seen.
 */
export function readJobFile(text: string): JobFile {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch (cause) {
    throw new JobFileError([`not JSON: ${(cause as Error).message}`]);
  }
  try {
    return jobFileSchema.validateSync(raw, { strict: true, abortEarly: false });
  } catch (cause) {
    if (!(cause instanceof ValidationError)) throw cause;
    const inner = cause.inner.length ? cause.inner : [cause];
    throw new JobFileError(inner.map((problem) => `${problem.path || 'file'}: ${problem.message}`));
  }
}

export const writeJobFile = (job: JobFile): string => `${JSON.stringify(job, null, 2)}\n`;
