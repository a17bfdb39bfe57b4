import type { OnVehicle } from '../family.ts';
import { clawPoleFaults } from './faults/index.ts';
import type { ClawPole } from './parameters.ts';

/** How the volts follow the revs: rises and stays, does not rise, rises too little, runs away, falls. */
const noCharge = [0.02, 0.9, 0.06, 0.01, 0.01];
const lowCharge = [0.25, 0.12, 0.58, 0.01, 0.04];
const runsAway = [0.12, 0.01, 0.02, 0.83, 0.02];

const shown = (species: string, name: string, more: Partial<OnVehicle> & { output: number }): OnVehicle => ({
  id: species,
  species,
  name,
  share: 1,
  ...more,
});

/**
 * What each species does to a running vehicle: current left, regulated volts, a leak with the key off, and what eye
 * and ear find. Shares and chances are from memory; the circuit works the volts out of them.
 */
export const clawPoleOnVehicle = (machine: ClawPole): readonly OnVehicle[] => {
  const all = [
    shown('diode-open', 'a main diode open', {
      odds: { ripple: [0.15, 0.6, 0.25], noise: [0.5, 0.46, 0.02, 0.02] },
      output: 0.7,
    }),
    // Battery volts reach the exciter diodes through a shorted positive diode: the field draws with the key off.
    shown('diode-shorted', 'a main diode shorted', {
      odds: {
        lamp: [0.25, 0.4, 0.02, 0.33],
        'battery-taken-off': [0.9, 0.1],
        revs: lowCharge,
        ripple: [0.1, 0.5, 0.4],
        noise: [0.32, 0.64, 0.02, 0.02],
      },
      output: 0.35,
      ...(machine.exciterDiodes ? { leakOhms: [3, 6] } : {}),
    }),
    shown('diode-leaky', 'a main diode leaky', {
      odds: { 'battery-taken-off': [0.9, 0.1] },
      output: 0.95,
      leakOhms: [8, 30, 120],
    }),
    shown('exciter-open', 'an exciter diode open', { odds: { lamp: [0.4, 0.15, 0.02, 0.43] }, output: 0.85 }),
    shown('exciter-shorted', 'an exciter diode shorted', {
      odds: { lamp: [0.25, 0.35, 0.02, 0.38], revs: lowCharge, ripple: [0.65, 0.3, 0.05] },
      output: 0.5,
    }),
    shown('output-leak', 'output insulator or capacitor leaking', { output: 1, leakOhms: [8, 30, 120] }),
    shown('rotor-open', 'rotor winding open', { odds: { lamp: [0.05, 0.25, 0.65, 0.05], revs: noCharge }, output: 0 }),
    shown('rotor-turns', 'rotor with shorted turns', { output: 0.75 }),
    // The regulator on the ground side can't switch off a winding that has ground already.
    shown('rotor-core', 'rotor winding to core', {
      output: machine.regulatorSide === 'ground' ? 1 : 0.1,
      ...(machine.regulatorSide === 'ground' ? { regulatedVolts: 2.5 } : {}),
    }),
    shown('brush-worn', 'brush worn out', { odds: { lamp: [0.08, 0.25, 0.62, 0.05], revs: noCharge }, output: 0 }),
    shown('brush-contact', 'brush losing contact', {
      odds: { lamp: [0.4, 0.4, 0.15, 0.05], revs: lowCharge },
      output: 0.4,
    }),
    shown('rings-dirty', 'slip rings dirty', {
      odds: { lamp: [0.6, 0.25, 0.1, 0.05], revs: lowCharge },
      output: 0.6,
    }),
    shown('rings-gouged', 'slip rings gouged or burnt', {
      odds: { lamp: [0.75, 0.15, 0.05, 0.05], revs: lowCharge },
      output: 0.8,
    }),
    shown('stator-open', 'a stator phase open', {
      odds: {
        lamp: [0.45, 0.35, 0.02, 0.18],
        revs: lowCharge,
        ripple: [0.15, 0.55, 0.3],
        noise: [0.5, 0.46, 0.02, 0.02],
      },
      output: 0.55,
    }),
    shown('stator-turns', 'stator turns shorted', {
      odds: {
        lamp: [0.45, 0.35, 0.02, 0.18],
        revs: lowCharge,
        ripple: [0.45, 0.45, 0.1],
        noise: [0.22, 0.74, 0.02, 0.02],
      },
      output: 0.5,
    }),
    shown('stator-core', 'stator winding to core', {
      odds: {
        lamp: [0.4, 0.4, 0.02, 0.18],
        revs: lowCharge,
        ripple: [0.45, 0.45, 0.1],
        noise: [0.42, 0.54, 0.02, 0.02],
      },
      output: 0.5,
    }),
    shown('bearing-worn', 'a bearing worn', { odds: { noise: [0.1, 0.02, 0.85, 0.03] }, output: 1 }),
    shown('pulley-worn', 'pulley or its clutch at fault', {
      odds: { clutch: [0.06, 0.56, 0.16, 0.22], noise: [0.4, 0.02, 0.53, 0.05] },
      output: 0.8,
    }),
    shown('fan-damaged', 'fan damaged', { odds: { noise: [0.3, 0.02, 0.65, 0.03] }, output: 1 }),
    shown('shaft-damaged', 'shaft bent or its thread torn', { odds: { noise: [0.3, 0.02, 0.65, 0.03] }, output: 1 }),
    shown('case-cracked', 'case cracked', { odds: { noise: [0.6, 0.02, 0.35, 0.03] }, output: 1 }),
    shown('terminals-burnt', 'terminal or connector burnt', {
      odds: { lamp: [0.4, 0.3, 0.15, 0.15], revs: lowCharge },
      output: 0.5,
    }),
    shown('rings-worn', 'slip rings worn down', { odds: { revs: lowCharge }, output: 0.7 }),
    shown('regulator', 'regulator dead', {
      id: 'regulator-dead',
      share: 0.5,
      odds: { lamp: [0.1, 0.6, 0.25, 0.05], 'battery-taken-off': [0.88, 0.12], revs: noCharge },
      output: 0,
    }),
    shown('regulator', 'regulator runs away', {
      id: 'regulator-full',
      share: 0.3,
      odds: { 'battery-taken-off': [0.88, 0.12], revs: runsAway },
      output: 1,
      regulatedVolts: 2.5,
    }),
    shown('regulator', 'regulator set too low', {
      id: 'regulator-low',
      share: 0.2,
      odds: { revs: [0.3, 0.02, 0.64, 0.01, 0.03] },
      output: 0.9,
      regulatedVolts: -0.9,
    }),
    shown('regulator-setting', 'regulator out of adjustment', {
      odds: { revs: [0.3, 0.02, 0.64, 0.01, 0.03] },
      output: 0.9,
      regulatedVolts: -0.9,
    }),
    shown('regulator-deaf', 'regulator deaf to its command', { odds: { lamp: [0.5, 0.3, 0.15, 0.05] }, output: 1 }),
  ];
  const own = new Set(clawPoleFaults(machine).map(({ species }) => species));
  return all.filter(({ species }) => own.has(species));
};
