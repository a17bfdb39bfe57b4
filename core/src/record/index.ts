export {
  type JobFile,
  JobFileError,
  jobFileSchema,
  jobFileVersion,
  metersOf,
  outcomeSchema,
  outputPointSchema,
  pricesSchema,
  type ReadingRecord,
  readingSchema,
  tellerSchema,
  vehicleSchema,
  workSchema,
} from './job-file.ts';
export { machineSchema } from './machine.ts';
export { multimeterSchema } from './meter.ts';
export { type ShelfFile, shelfFileSchema, shelfFileVersion, shelfModelSchema } from './shelf-file.ts';
export { jobFileJsonSchema, shelfFileJsonSchema } from './json-schema.ts';
export { readJobFile, writeJobFile } from './read.ts';
