import type { Edit } from '../../../circuit/index.ts';
import type { Fault, Severity } from '../../family.ts';

interface Made {
  readonly id: string;
  readonly part: string;
  readonly name: string;
  readonly weight: number;
  /** A fault without grades is there or not. */
  readonly unit?: Severity['unit'];
  readonly grades?: readonly number[];
  readonly edits?: (severity: number) => readonly Edit[];
  readonly repair?: string;
}

/** A fault of a starter: each of its places has one name. */
export const fault = ({ id, unit = 'none', grades = [1], edits = () => [], ...rest }: Made): Fault => ({
  ...rest,
  id,
  species: id,
  place: '',
  severity: { unit, grades },
  edits,
});

/** Copper that has come apart. */
export const open = 1e9;
/** To the case: from a short that draws hundreds of amperes to a leak that only megohms show. */
export const leakGrades = [0.03, 3, 300, 3e4, 3e6] as const;
