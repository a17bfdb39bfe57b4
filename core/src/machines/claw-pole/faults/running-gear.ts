import type { Fault } from '../../family.ts';

/** What turns, holds and joins: found by hand and eye, never by a meter. */
const byHand = (id: string, part: string, name: string, weight: number): Fault => ({
  id,
  species: id,
  place: '',
  part,
  name,
  weight,
  severity: { unit: 'none', grades: [1] },
  edits: () => [],
});

export const runningGear = (): Fault[] => [
  byHand('bearing-worn', 'bearings', 'bearing worn', 5),
  byHand('pulley-worn', 'pulley', 'pulley loose, grooved or its clutch at fault', 1.5),
  byHand('fan-damaged', 'fan', 'fan damaged', 0.4),
  byHand('shaft-damaged', 'shaft', 'shaft bent or its thread torn', 0.4),
  byHand('case-cracked', 'case', 'case cracked or an ear broken', 0.5),
  byHand('terminals-burnt', 'terminals', 'terminal or connector burnt or loose', 1.5),
];
