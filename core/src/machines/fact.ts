import type { Unit } from '../quantity/index.ts';

export type FactValue = number | string | boolean;

export interface Choice {
  readonly value: FactValue;
  readonly name: string;
}

/** Something that can be known of a model: a quantity, one of some choices, a price, or words. */
export interface Fact {
  readonly id: string;
  readonly name: string;
  /** Not every machine's is known; a fact of a machine that isn't so must be. */
  readonly optional?: true;
  /** Seldom looked at when a unit comes in. */
  readonly aside?: true;
  /** What it is where nobody said: a fact that was asked for later than others. */
  readonly unsaid?: FactValue;
  readonly kind:
    | { readonly unit: Unit; readonly least?: number; readonly most?: number }
    | { readonly choices: readonly Choice[] }
    | { readonly money: true }
    | { readonly longest: number };
}
