export { type Action, type Course, type CourseId, courseNames, decide, type Prices, type Verdict } from './verdict.ts';
