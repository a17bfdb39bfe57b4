export { changeJob, isChanged } from './change.ts';
export { type CheckIn, checkIn } from './check-in.ts';
export { findJob } from './find.ts';
export { moveJob } from './moves.ts';
export { addReading, strikeReading } from './readings.ts';
export { addDrainStep, addRunStep } from './steps.ts';
export { addVerdict } from './verdicts.ts';
export { addWork } from './works.ts';
