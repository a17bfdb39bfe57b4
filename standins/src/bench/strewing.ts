import type { Strewing } from '@refectum/core/practice';

/** How units on the simulated bench differ from their kind [our estimate]; half-widths of bells. */
export const strewing: Strewing = {
  resistors: { stator: 0.2, 'stator:': 0.015, rotor: 0.15 },
  logs: { brushes: 0.6, leak: 1.5, 'leak:': 1, 'insulation-core': 1.5, 'insulation-rotor-core': 1.5 },
  junctions: { junction: 0.03, 'junction:': 0.005, exciter: 0.03, 'exciter:': 0.005 },
  running: { flux: 0.1, inductance: 0.12 },
  celsius: 3,
  leads: 0.03,
  within: { brushes: [0, 2], rotor: [0.7, Infinity], stator: [0.6, Infinity] },
  slips: 0,
};
