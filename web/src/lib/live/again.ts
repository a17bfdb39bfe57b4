import type { Diagnosis, JudgedReading } from '@refectum/core/assess';

/** The newest reading that asks to be taken again. */
export const asksAgain = (diagnosis: Diagnosis | undefined): JudgedReading | undefined =>
  diagnosis?.readings.findLast(({ repeat }) => repeat);
