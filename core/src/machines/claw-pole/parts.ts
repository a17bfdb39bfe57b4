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
  { id: 'regulator', name: 'Regulator', item: 'regulator' },
  { id: 'running-gear', name: 'Bearings, pulley, fan', item: 'running-gear' },
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
  { id: 'running-gear', name: 'Bearings and pulley', minutes: 35 },
];
