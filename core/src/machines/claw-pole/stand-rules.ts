import type { StandRules } from '../family.ts';

/** Of the rated volts: past its regulator a unit without load runs to 15 to 20 V and more [common practice, no source]. */
export const runAwayShare = 1.2;

/** What makes a run dangerous [common practice, no source]. */
export const clawPoleStandRules: StandRules = {
  first: ['bridge-forward', 'bridge-reverse', 'bearings-by-hand', 'pulley-by-hand'],
  dangers: [
    {
      species: ['diode-shorted'],
      name: 'A shorted diode',
      why: 'two of them, one on each side, put the battery across the rectifier',
    },
    {
      species: ['output-leak'],
      name: 'A path from output post to case',
      why: 'the battery feeds it as soon as it is connected',
    },
    { species: ['stator-core'], name: 'The stator to its core', why: 'a phase drives its current through the case' },
    {
      species: ['rotor-core'],
      name: 'The field winding to its core',
      why: 'the regulator can’t switch it off: the volts run away',
    },
    { species: ['bearing-worn'], name: 'A bearing', why: 'it may seize at speed and throw the belt' },
    { species: ['pulley-worn'], name: 'The pulley', why: 'a loose one flies off' },
  ],
};
