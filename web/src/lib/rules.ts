import type { School } from '@refectum/core/limits';
import { schools } from '@refectum/core/limits';
import { array, mixed, object } from 'yup';

/** How this shop works, where technicians differ. */
export interface HouseRules {
  /** Which limits lead, first to last. */
  readonly limits: readonly School[];
}

/** What the trade does most [common practice, no source]. */
export const usualRules: HouseRules = { limits: ['published', 'siblings', 'own'] };

const names = Object.keys(schools) as School[];

export const rulesSchema = object({
  limits: array(mixed<School>().oneOf(names, 'no such school: ${value}').required())
    .required('Say which limits lead')
    .test(
      'each once',
      'Name each school once',
      (given) => new Set(given).size === names.length && given?.length === names.length,
    ),
}).noUnknown('unknown field: ${unknown}');
