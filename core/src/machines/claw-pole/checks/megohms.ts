/**
 * Leaks over diodes are read on a range held by hand: on a lower one the meter pushes so much current that a low-loss
 * diode is no longer at its leak, and an automatic meter jumps by a factor of three where it changes over.
 */
export const megohms = { fullScale: 1e6, freeBelow: 5e3 } as const;
export const megohmsHow = 'range held at 2 MΩ or above, under 5 kΩ left to the meter';
