export { type Blame, blameOf } from './blame.ts';
export { complaintAfter } from './complaint-after.ts';
