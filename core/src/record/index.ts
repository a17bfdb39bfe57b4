export {
  type JobFile,
  JobFileError,
  jobFileSchema,
  jobFileVersion,
  machineSchema,
  outcomeSchema,
  pricesSchema,
  type ReadingRecord,
  readingSchema,
  tellerSchema,
  vehicleSchema,
} from './job-file.ts';
export { jobFileJsonSchema } from './json-schema.ts';
export { readJobFile, writeJobFile } from './read.ts';
