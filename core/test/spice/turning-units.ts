import { Turning } from '../../src/circuit/index.ts';
import { type ClawPole, clawPoleBuilds, clawPoleGeneric, clawPoleTurning, familyOf } from '../../src/machines/index.ts';
import { ordersOf } from '../../src/waveform/index.ts';
import type { DeckedRun } from './turning-deck.ts';

/** The deck's machine: 0.036 Ω a phase. */
const machineWith = (diodes: 6 | 8, exciterDiodes: boolean): ClawPole => ({
  ...clawPoleGeneric(12, 100),
  connection: 'star',
  diodeKind: 'silicon',
  diodes,
  exciterDiodes,
  statorPairOhms: 0.072,
});
const excitation = { polePairs: 6, fluxWebers: 0.0128, henries: 114e-6 };
const stand = { loadOhms: 0.3, batteryVolts: 12.6, batteryOhms: 0.01, cableOhms: 3e-3 };

/** The same unit run by the program. */
export function runOurs(rpm: number, [hidden, { diodes = 6, fieldAmps }]: TurningUnit, damping = 1) {
  const machine = machineWith(diodes, fieldAmps !== undefined);
  const faults = familyOf(machine).faults(machine);
  const build = clawPoleBuilds(machine)[0]!;
  const there = hidden.map(([id, severity]) => {
    const fault = faults.find((one) => one.id === id)!;
    return { species: fault.species, place: fault.place, severity, edits: fault.edits(severity) };
  });
  const network = clawPoleTurning(machine, build, there, { ...stand, rpm }, { ...excitation, damping });
  const turning = new Turning(network, 'case', { windings: 25, diodes: 25 });
  const began = performance.now();
  const draws = fieldAmps === undefined ? [] : [{ from: 'exciter', to: 'case', amps: fieldAmps }];
  const period = turning.steady({ electricalHertz: rpm / 10, draws });
  const milliseconds = performance.now() - began;
  const { mean, ripple, rms } = ordersOf(period.amps('cable'));
  return {
    mean,
    ripple,
    rms,
    milliseconds,
    tap: ordersOf(period.volts('leg:A')).mean / ordersOf(period.volts('output')).mean,
    exciter: fieldAmps === undefined ? undefined : ordersOf(period.volts('exciter')).mean,
  };
}

/** Of solid claws, subtransient over synchronous inductance. */
export const damped = 0.5;

/** Copper at 25 °C; the deck has no temperature of its own. */
const deckOhms = 0.036 * (1 + 0.00393 * 5);
type Hidden = readonly (readonly [string, number])[];
/** Torn in what has six diodes; in what has no exciter diodes, and their leaks. */
const atStar = ['sp', 'sn'];
const forField = ['ea', 'eb', 'ec'];
const noLeaks = { lea: 1e15, leb: 1e15, lec: 1e15 };
export type TurningUnit = readonly [Hidden, Omit<DeckedRun, 'rpm'>];
export const turningUnits: Readonly<Record<string, TurningUnit>> = {
  sound: [[], {}],
  'one diode open': [[['diode-open:A+', 1]], { torn: ['ap'] }],
  'a diode open on the other side': [[['diode-open:B-', 1]], { torn: ['bn'] }],
  'one diode shorted': [[['diode-shorted:A+', 0.05]], { values: { lap: 0.05 } }],
  'two diodes of one side open': [
    [
      ['diode-open:A+', 1],
      ['diode-open:B+', 1],
    ],
    { torn: ['ap', 'bp'] },
  ],
  'two diodes crosswise open': [
    [
      ['diode-open:A+', 1],
      ['diode-open:B-', 1],
    ],
    { torn: ['ap', 'bn'] },
  ],
  'a phase open': [[['stator-open:A', 1]], { values: { ta: 1e6 } }],
  'a twelfth of a phase’s turns shorted': [[['stator-turns:A', 0.08]], { values: { turns: 0.08, short: 1e-3 } }],
  'a fifth of a phase’s turns shorted': [[['stator-turns:A', 0.2]], { values: { turns: 0.2, short: 1e-3 } }],
  'a diode that leaks 5 Ω': [[['diode-leaky:A+', 5]], { values: { lap: 5 } }],
  'exciter diodes': [[], { fieldAmps: 3 }],
  'exciter diodes, one open': [[['exciter-open:A', 1]], { fieldAmps: 3, torn: ['ea'] }],
  'exciter diodes, one shorted': [[['exciter-shorted:A', 0.3]], { fieldAmps: 3, values: { lea: 0.3 } }],
  'exciter diodes, a positive diode open': [[['diode-open:A+', 1]], { fieldAmps: 3, torn: ['ap'] }],
  'exciter diodes, a negative diode open': [[['diode-open:A-', 1]], { fieldAmps: 3, torn: ['an'] }],
  'exciter diodes, a phase open': [[['stator-open:A', 1]], { fieldAmps: 3, values: { ta: 1e9 } }],
  'eight diodes': [[], { diodes: 8 }],
  'eight diodes, one open': [[['diode-open:A+', 1]], { torn: ['ap'], diodes: 8 }],
  'eight diodes, one at the star shorted': [[['diode-shorted:N+', 0.05]], { values: { lsp: 0.05 }, diodes: 8 }],
  'eight diodes, a phase open': [[['stator-open:A', 1]], { values: { ta: 1e6 }, diodes: 8 }],
};

/** The unit in the deck, at the program's temperature; `damping`: subtransient over synchronous inductance. */
export const decked = (rpm: number, run: Omit<DeckedRun, 'rpm'>, damping = 1): DeckedRun => ({
  ...run,
  rpm,
  values: {
    ...(run.fieldAmps === undefined ? noLeaks : {}),
    ...run.values,
    r: deckOhms,
    damping,
    field: run.fieldAmps ?? 0,
  },
  torn: [...(run.torn ?? []), ...(run.diodes === 8 ? [] : atStar), ...(run.fieldAmps === undefined ? forField : [])],
});
