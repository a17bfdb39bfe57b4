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
  readonly kind:
    | { readonly unit: Unit }
    | { readonly choices: readonly Choice[] }
    | { readonly money: true }
    | { readonly longest: number };
}
