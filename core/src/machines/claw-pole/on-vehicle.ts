import type { OnVehicle } from '../family.ts';
import type { ClawPole } from './parameters.ts';

const shown = (species: string, name: string, more: Partial<OnVehicle> & { output: number }): OnVehicle => ({
  id: species,
  species,
  name,
  share: 1,
  ...more,
});

/**
 * What each species does to a running vehicle: current left, regulated volts, a leak with the key off, ripple and
 * noise. Shares and chances are from memory; the circuit works the volts out of them.
 */
export const clawPoleOnVehicle = (machine: ClawPole): readonly OnVehicle[] => {
  const all = [
    shown('diode-open', 'a main diode open', { output: 0.7, ripple: 0.9, whine: 0.5 }),
    // Battery volts reach the exciter diodes through a shorted positive diode: the field draws with the key off.
    shown('diode-shorted', 'a main diode shorted', {
      output: 0.35,
      ripple: 0.95,
      whine: 0.7,
      ...(machine.exciterDiodes ? { leakOhms: [3, 6] } : {}),
    }),
    shown('diode-leaky', 'a main diode leaky', { output: 0.95, ripple: 0.1, leakOhms: [8, 30, 120] }),
    shown('exciter-open', 'an exciter diode open', { output: 0.85, ripple: 0.1 }),
    shown('exciter-shorted', 'an exciter diode shorted', { output: 0.5, ripple: 0.3, whine: 0.2 }),
    shown('output-leak', 'output insulator or capacitor leaking', { output: 1, leakOhms: [8, 30, 120] }),
    shown('rotor-open', 'rotor winding open', { output: 0 }),
    shown('rotor-turns', 'rotor with shorted turns', { output: 0.75 }),
    // The regulator on the ground side can't switch off a winding that has ground already.
    shown('rotor-core', 'rotor winding to core', {
      output: machine.regulatorSide === 'ground' ? 1 : 0.1,
      ...(machine.regulatorSide === 'ground' ? { regulatedVolts: 2.5 } : {}),
    }),
    shown('brush-worn', 'brush worn out', { output: 0.02 }),
    shown('brush-contact', 'brush losing contact', { output: 0.4 }),
    shown('rings-dirty', 'slip rings dirty or burnt', { output: 0.6 }),
    shown('stator-open', 'a stator phase open', { output: 0.55, ripple: 0.9, whine: 0.5 }),
    shown('stator-turns', 'stator turns shorted', { output: 0.5, ripple: 0.5, whine: 0.8 }),
    shown('stator-core', 'stator winding to core', { output: 0.5, ripple: 0.5, whine: 0.6 }),
    shown('running-gear', 'bearings, pulley or fan', { output: 1, growl: 0.85 }),
    shown('regulator', 'regulator dead', { id: 'regulator-dead', share: 0.5, output: 0.01 }),
    shown('regulator', 'regulator runs away', {
      id: 'regulator-full',
      share: 0.3,
      output: 1,
      regulatedVolts: 2.5,
    }),
    shown('regulator', 'regulator set too low', {
      id: 'regulator-low',
      share: 0.2,
      output: 0.9,
      regulatedVolts: -0.9,
    }),
  ];
  return machine.exciterDiodes ? all : all.filter(({ species }) => !species.startsWith('exciter'));
};
