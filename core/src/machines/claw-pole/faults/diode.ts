import type { Fault } from '../../family.ts';
import { type ClawPole, diodeName, diodePlaces } from '../parameters.ts';

const each = (machine: ClawPole, make: (place: string) => Fault): Fault[] => diodePlaces(machine).map(make);
const at = (species: string, place: string, what: string) => ({
  id: `${species}:${place}`,
  species,
  place,
  part: `diode:${place}`,
  name: `${diodeName(place)} ${what}`,
});

export const diodeOpen = (machine: ClawPole): Fault[] =>
  each(machine, (place) => ({
    ...at('diode-open', place, 'open'),
    weight: 2,
    severity: { unit: 'none', grades: [1] },
    edits: () => [
      { element: `diode:${place}`, open: true },
      { element: `leak:${place}`, set: 1e10 },
    ],
  }));

export const diodeShorted = (machine: ClawPole): Fault[] =>
  each(machine, (place) => ({
    ...at('diode-shorted', place, 'shorted'),
    weight: 2,
    severity: { unit: 'ohms', grades: [0.03, 0.3] },
    edits: (ohms) => [{ element: `leak:${place}`, set: ohms }],
  }));

export const diodeLeaky = (machine: ClawPole): Fault[] =>
  each(machine, (place) => ({
    ...at('diode-leaky', place, 'leaking'),
    weight: 1,
    severity: { unit: 'ohms', grades: [55, 3e3, 1.6e5], soundAbove: true },
    edits: (ohms) => [{ element: `leak:${place}`, set: ohms }],
  }));
