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
export { type ShelfFile, shelfFileSchema, shelfFileVersion, shelfModelSchema } from './shelf-file.ts';
export { jobFileJsonSchema, shelfFileJsonSchema } from './json-schema.ts';
export { readJobFile, writeJobFile } from './read.ts';
