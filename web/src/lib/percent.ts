/** A chance beside its bar, in percent; never quite none and never quite sure, by the bounds that words have. */
export const percent = (chance: number): string =>
  chance > 0.99 ? '99+' : chance < 0.01 ? '<1' : String(Math.round(100 * chance));
