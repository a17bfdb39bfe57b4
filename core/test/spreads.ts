import type { Strewing } from '../src/practice/index.ts';

/**
 * How sound machines differ in the studies of hidden faults: figures of the studies alone, which the belief does not
 * read. Each is the half-width of a bell (three uniform numbers added up); its standard deviation is a third of it.
 */
export const spreads: Strewing = {
  /** Relative. */
  resistors: { stator: 0.36, 'stator:': 0.02, rotor: 0.3 },
  /** In ln(ohms). */
  logs: {
    brushes: 1.5,
    leak: 2.5,
    'leak:': 2,
    'exciter-leak:': 2.5,
    'insulation-core': 3,
    'insulation-rotor-core': 3,
    'insulation-output': 3,
    regulator: 2.5,
    'regulator-drive': 5,
  },
  /** V. */
  junctions: { junction: 0.06, 'junction:': 0.008, exciter: 0.075, 'exciter:': 0.01 },
  running: { flux: 0.2, inductance: 0.25, damping: 0.4 },
  /** K: how far the part is from what was typed. */
  celsius: 6,
  /** Ω: how far the leads are from what the meter's maker says. */
  leads: 0.05,
  /**
   * However wide a study strews units, one beyond is what the study calls a fault: a diode that leaks a megohm, half an ohm
   * in both contacts, less than 5 MΩ from a winding to its core (IEEE 43-2013, random-wound, figure from memory).
   */
  within: {
    leak: [0.05, Infinity],
    'insulation-core': [0.01, Infinity],
    'insulation-rotor-core': [0.0034, Infinity],
    'insulation-output': [0.02, Infinity],
    brushes: [0, 2.2],
    rotor: [0.7, Infinity],
    stator: [0.3, Infinity],
  },
  /** One in a hundred. */
  slips: 0.01,
};

/** Nothing at rest shows these. */
export const unseen: readonly string[] = ['regulator'];
/**
 * How bad hidden faults are, from slight to bad. Of turns, shares that a bench meter can show beside the spread of sound
 * windings; fewer lie below any meter at rest.
 */
export const showing: Readonly<Record<string, readonly [number, number]>> = {
  'diode-shorted': [0.02, 0.5],
  'diode-leaky': [30, 3e5],
  'exciter-shorted': [0.02, 0.5],
  'output-leak': [1, 1e6],
  'rotor-core': [1, 1e6],
  'brush-worn': [1, 1e9],
  'brush-contact': [0.1, 1],
  'rings-dirty': [0.3, 7.5],
  'stator-core': [0.3, 3e5],
  'stator-turns': [0.2, 0.6],
  'rotor-turns': [0.45, 0.9],
};

/** The same for starters. */
export const starterSpreads: Strewing = {
  resistors: { motor: 0.3, 'pull-in': 0.25, 'hold-in': 0.25 },
  logs: {
    brushes: 0.8,
    contacts: 1,
    'insulation-contacts': 3,
    'insulation-main-case': 3,
    'insulation-field-case': 3,
    'insulation-armature-core': 3,
  },
  junctions: {},
  running: { flux: 0.2, drag: 0.55, saturation: 0.6, cells: 0.03, battery: 0.6 },
  celsius: 8,
  leads: 0.05,
  /** Beyond is what the study calls a fault. */
  within: {
    'insulation-contacts': [1e-2, Infinity],
    'insulation-main-case': [0.2, Infinity],
    'insulation-field-case': [0.2, Infinity],
    'insulation-armature-core': [0.2, Infinity],
    motor: [0.6, Infinity],
  },
  slips: 0.01,
};

/** How bad a starter's hidden faults are. */
export const starterShowing: Readonly<Record<string, readonly [number, number]>> = {
  'pull-in-turns': [0.35, 0.9],
  'hold-in-turns': [0.35, 0.9],
  'contacts-burnt': [0.006, 0.08],
  'armature-turns': [1, 4],
  'armature-core': [0.03, 3e6],
  'brush-worn': [0.006, 1e7],
  'commutator-dirty': [0.004, 0.04],
  'field-turns': [0.2, 0.7],
  'field-case': [0.03, 3e6],
  'magnets-weak': [0.12, 0.4],
  'bushes-worn': [1.8, 5],
  'shaft-rubs': [2, 8],
  'gears-worn': [1.3, 2],
  'terminals-burnt': [0.005, 0.05],
  'main-case': [0.03, 3e6],
  'bench-battery-weak': [1.6, 4],
  'drive-slips': [0.02, 0.9],
};
