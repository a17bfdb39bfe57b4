import type { Item, Part } from '../family.ts';
import { type ClawPole, diodeName, diodePlaces, phases, windingName } from './parameters.ts';

const capital = (text: string): string => text[0]!.toUpperCase() + text.slice(1);

export const clawPoleParts = (machine: ClawPole): readonly Part[] => [
  ...diodePlaces(machine).map((place) => ({
    id: `diode:${place}`,
    name: capital(diodeName(place)),
    item: 'rectifier',
  })),
  ...(machine.exciterDiodes
    ? phases.map((phase) => ({ id: `exciter:${phase}`, name: `Exciter diode ${phase}`, item: 'exciter-diodes' }))
    : []),
  { id: 'output', name: 'Output insulator or suppression capacitor', item: 'output' },
  { id: 'rotor', name: 'Rotor winding', item: 'rotor' },
  { id: 'rings', name: 'Slip rings', item: 'rotor' },
  { id: 'brushes', name: 'Brushes', item: 'brushes' },
  ...phases.map((phase) => ({
    id: `stator:${phase}`,
    name: capital(windingName(machine, phase)),
    item: 'stator',
  })),
  { id: 'stator-insulation', name: 'Stator insulation to the core', item: 'stator' },
  { id: 'regulator', name: 'Regulator', item: 'regulator' },
  { id: 'bearings', name: 'Bearings', item: 'bearings' },
  { id: 'pulley', name: 'Pulley', item: 'pulley' },
  { id: 'fan', name: 'Fan', item: 'fan' },
  { id: 'shaft', name: 'Shaft and thread', item: 'rotor' },
  { id: 'case', name: 'Case', item: 'case' },
  { id: 'terminals', name: 'Terminals and connector', item: 'terminals' },
];

/** Minutes are those of the work itself, the unit being open [from memory]. */
export const clawPoleItems = (machine: ClawPole): readonly Item[] => [
  { id: 'rectifier', name: 'Rectifier', minutes: 25 },
  ...(machine.exciterDiodes ? [{ id: 'exciter-diodes', name: 'Exciter diodes', minutes: 20 }] : []),
  { id: 'output', name: 'Output insulator and capacitor', minutes: 10 },
  { id: 'rotor', name: 'Rotor', minutes: 40 },
  { id: 'brushes', name: 'Brush set', minutes: 15 },
  { id: 'stator', name: 'Stator', minutes: 40 },
  { id: 'regulator', name: 'Regulator', minutes: 10 },
  { id: 'bearings', name: 'Bearings', minutes: 35 },
  { id: 'pulley', name: 'Pulley', minutes: 10 },
  { id: 'fan', name: 'Fan', minutes: 10 },
  { id: 'case', name: 'Case half', minutes: 30 },
  { id: 'terminals', name: 'Terminals and connector', minutes: 20 },
];
