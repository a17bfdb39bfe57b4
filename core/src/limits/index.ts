export {
  contradict,
  fewestOwn,
  inHouseOrder,
  type Keeps,
  keeps,
  type Known,
  limitsFor,
  type School,
  type SchoolLimit,
  schools,
  unbalance,
} from './limits.ts';
export { studentT } from './student.ts';
