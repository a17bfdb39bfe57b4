// bin/refectum assess FILE…: reads job files, prints belief, next checks and verdict as JSON. No database.
import { readFileSync } from 'node:fs';
import { assessJob } from '../core/src/assess/index.ts';
import { JobFileError, readJobFile } from '../core/src/record/index.ts';

const results: Record<string, unknown> = {};
let failed = false;
for (const file of process.argv.slice(2)) {
  try {
    results[file] = assessJob(readJobFile(readFileSync(file, 'utf8')));
  } catch (cause) {
    failed = true;
    const problems = cause instanceof JobFileError ? cause.problems : [(cause as Error).message];
    for (const problem of problems) console.error(`${file}: ${problem}`);
  }
}
console.log(JSON.stringify(results, null, 2));
process.exitCode = failed ? 1 : 0;
