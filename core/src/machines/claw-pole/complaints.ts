import type { Complaint } from '../family.ts';

/** What brings a unit in. Factors and chances are from memory; the vehicle's own evidence will sharpen them. */
export const clawPoleComplaints: readonly Complaint[] = [
  {
    id: 'no-charge',
    name: 'No charge',
    sound: 0.3,
    charging: true,
    factors: { 'brush-worn': 2, 'rotor-open': 2, regulator: 1.5, 'diode-leaky': 0.5, 'running-gear': 0.4 },
  },
  {
    id: 'charge-lamp',
    name: 'Charge lamp on',
    sound: 0.3,
    charging: true,
    factors: { 'brush-worn': 1.5, 'exciter-open': 2, 'exciter-shorted': 2, 'running-gear': 0.4 },
  },
  {
    id: 'low-charge',
    name: 'Low charge',
    sound: 0.3,
    charging: true,
    factors: { 'diode-open': 2, 'stator-turns': 2, 'rings-dirty': 2, 'stator-open': 1.5, 'running-gear': 0.7 },
  },
  { id: 'overcharge', name: 'Overcharge', sound: 0.2, charging: true, factors: { regulator: 8, 'rotor-core': 3 } },
  {
    id: 'drains-overnight',
    name: 'Drains overnight',
    sound: 0.4,
    charging: false,
    factors: { 'diode-shorted': 4, 'diode-leaky': 8, 'output-leak': 5, 'running-gear': 0.3 },
  },
  {
    id: 'whine',
    name: 'Whine',
    sound: 0.15,
    charging: false,
    factors: { 'running-gear': 8, 'diode-open': 2, 'diode-shorted': 2, 'stator-turns': 2 },
  },
  { id: 'growl', name: 'Growl', sound: 0.2, charging: false, factors: { 'running-gear': 15, 'stator-turns': 2 } },
  {
    id: 'smell',
    name: 'Burnt smell',
    sound: 0.3,
    charging: false,
    factors: { 'stator-turns': 4, 'stator-core': 3, 'diode-shorted': 3, 'rotor-turns': 2, 'running-gear': 2 },
  },
  {
    id: 'slow-crank',
    name: 'Slow crank',
    sound: 0.7,
    charging: false,
    factors: { 'diode-leaky': 2, 'brush-worn': 1.5 },
  },
  {
    id: 'click',
    name: 'Click, no crank',
    sound: 0.7,
    charging: false,
    factors: { 'diode-leaky': 2, 'brush-worn': 1.5 },
  },
  { id: 'no-crank', name: 'No crank', sound: 0.75, charging: false, factors: { 'diode-leaky': 2, 'brush-worn': 1.5 } },
  { id: 'spins', name: 'Spins without engaging', sound: 0.8, charging: false, factors: {} },
  { id: 'grinds', name: 'Grinds when cranking', sound: 0.8, charging: false, factors: {} },
  { id: 'none', name: 'None: for stock', sound: 0.35, charging: false, factors: {} },
];
