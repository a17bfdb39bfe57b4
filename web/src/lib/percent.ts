/** A chance in words of percent, never quite none and never quite sure. */
export const percent = (chance: number): string =>
  chance >= 0.995 ? '99+' : chance < 0.01 ? '<1' : String(Math.round(100 * chance));
