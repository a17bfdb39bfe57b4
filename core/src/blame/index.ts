export { type Blame, blameOf } from './blame.ts';
export { complaintAfter } from './told.ts';
