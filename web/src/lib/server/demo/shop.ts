import type { Prices } from '@refectum/core/verdict';
import type { Role } from '../../people.ts';

/** Invented: the workshop of a small island ferry port. No real person, place, brand or part number. */
export const demoShop = {
  name: 'Port Workshop, Saltholm Ferry',
  heading: 'Port Workshop · Saltholm Ferry Landing · buses, pumps, harvesters, scooters and the railcar',
  stand: {
    motorKilowatts: 4,
    beltKilowatts: 4.5,
    fuseAmps: 150,
    loadAmps: 120,
    loadSeconds: 10,
    brakeNewtonMetres: 60,
    commanderHertz: 125,
    oscilloscopeKilohertz: 500,
  },
  people: [
    { name: 'Ansa Brimmel', role: 'lead', pin: '4180', password: 'salt on the slipway' },
    { name: 'Tovik Harle', role: 'technician', pin: '2719' },
    { name: 'Wenna Oskarby', role: 'technician', pin: '6052' },
    { name: 'Perran Quill', role: 'viewer', pin: '9304' },
  ] as readonly DemoPerson[],
};

/** Its PIN and password are for the demo alone, and shown on its sign-in page. */
export interface DemoPerson {
  readonly name: string;
  readonly role: Role;
  readonly pin: string;
  readonly password?: string;
}

/** What it pays and takes: of starters, of alternators. */
export const starterPrices: Prices = {
  labourPerHour: 48,
  exchange: 260,
  core: 30,
  comeback: 90,
  items: {
    solenoid: { price: 42 },
    armature: { price: 95 },
    brushes: { price: 14 },
    bushes: { price: 11 },
    drive: { price: 36 },
    field: { price: 70 },
    frame: { price: 58 },
  },
};

export const prices: Prices = {
  labourPerHour: 48,
  exchange: 210,
  core: 25,
  comeback: 90,
  items: {
    rectifier: { price: 44 },
    'exciter-diodes': { price: 22 },
    output: { price: 6 },
    rotor: { price: 85 },
    brushes: { price: 9 },
    stator: { price: 78 },
    regulator: { price: 38 },
    bearings: { price: 31 },
  },
};
