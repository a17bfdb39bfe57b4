import type { Edit } from '../../circuit/index.ts';
import { copperPerKelvin } from '../../circuit/index.ts';
import { batteryPerKelvin, cellsOf } from '../../handbook/index.ts';
import {
  type Motor,
  type MotorDynamics,
  motorPeak,
  type MotorPriors,
  motorRun,
  type MotorSource,
} from '../../curves/index.ts';
import type { Fed, Off, OutputShape, RunningFault } from '../family.ts';
import { hasGears, hasMagnets, type Starter } from './parameters.ts';

/** How the resistance from terminal to case is shared out [from memory]. */
const shares = {
  series: { contacts: 0.05, joint: 0.05, field: 0.3, brushes: 0.2, armature: 0.4 },
  magnets: { contacts: 0.05, joint: 0.05, field: 0.02, brushes: 0.25, armature: 0.63 },
} as const;
/** Both brushes, whatever the current; metal-graphite [from memory]. */
const brushVolts = 0.6;
/** Of the torque lost without load, what does not grow with speed [from memory]. */
const constantDrag = 0.6;
/** How much a series field's iron saturates at half the current that it draws held [from memory]. */
const saturation = 4;
const gearEfficiency = { reduction: 0.95, planetary: 0.93 } as const;
/** A short between neighbouring bars: coils of an armature, its poles, what one coil has [from memory, the inductance a guess]. */
const coil = { coils: 25, polePairs: 2, shareOfArmature: 4 / 25, henries: 2e-6 } as const;
/** What comes and goes once in a turn of a sound starter, of the brushes' resistance and of the drag [from memory]. */
const soundTurn = { ofBrushes: 0.1, ofDrag: 0.1 } as const;
/** A power is rated on a battery of its size: so many milliohms at 1.4 kW and 12 V [from memory, after ISO 8856]. */
const rating = { volts: 12.6, ohmKilowatts: 0.006 * 1.4 } as const;

/** The battery of a bench, charged, and the leads [from memory]. */
export const benchBattery = { crankingAmps: 700, leadOhms: 0.001 } as const;

function batteryOf({ ratedVolts }: Starter): MotorSource {
  const { volts, ohms } = cellsOf(ratedVolts, benchBattery.crankingAmps, 20, 1);
  return { volts, ohms: ohms + benchBattery.leadOhms };
}

/** The battery that its power is rated on. */
export function ratedOn({ ratedVolts, ratedKilowatts }: Starter): MotorSource {
  const sets = ratedVolts / 12;
  return { volts: rating.volts * sets, ohms: (rating.ohmKilowatts * sets ** 2) / ratedKilowatts };
}

/** Every quantity of the running machine that a fault may edit, resistances at 20 °C. */
const quantityNames = [
  'closed-contacts',
  'joint',
  'field',
  'brushes',
  'armature',
  'flux',
  'drag',
  'field-turns',
  'shorted-coils',
  'open-coils',
  'turn-ohms',
  'turn-drag',
  'armature-core',
  'field-case',
  'main-case',
  'clutch',
  'cells',
  'battery',
] as const;
type Quantities = Readonly<Record<(typeof quantityNames)[number], number>>;
/** Whether an element has a part in the running machine or in what feeds it. */
export const isQuantity = (element: string): boolean => (quantityNames as readonly string[]).includes(element);

const known = new WeakMap<Starter, number>();

/** Resistance from terminal to case at 20 °C: from its held point where that is known, else from its rated power. */
function totalOhms(machine: Starter): number {
  const found = known.get(machine) ?? ratedOhms(machine);
  known.set(machine, found);
  return found;
}

function ratedOhms(machine: Starter): number {
  const { stallVolts, stallAmps, ratedKilowatts } = machine;
  if (stallVolts !== undefined && stallAmps !== undefined) return (stallVolts - brushVolts) / stallAmps;
  const source = ratedOn(machine);
  // No load must leave an EMF.
  let high = (0.9 * (machine.noLoadVolts - brushVolts)) / machine.noLoadAmps;
  let low = 1e-4;
  for (let n = 0; n < 40; n++) {
    const middle = Math.sqrt(low * high);
    if (motorPeak(plateMotor(machine, middle), source) > 1000 * ratedKilowatts) low = middle;
    else high = middle;
  }
  return Math.sqrt(low * high);
}

/** The motor that a plate describes, by its no-load point and its resistance. */
function plateMotor(machine: Starter, ohms: number): Motor {
  const { noLoadVolts, noLoadAmps, noLoadRpm, gearRatio, ratedVolts } = machine;
  const field = hasMagnets(machine) ? 'magnets' : 'series';
  const part = shares[field];
  const radians = ((2 * Math.PI * noLoadRpm) / 60) * gearRatio;
  const flux = (noLoadVolts - brushVolts - noLoadAmps * ohms) / radians;
  const referenceAmps = ratedVolts / (2 * ohms);
  const x = noLoadAmps / referenceAmps;
  const atNoLoad = field === 'magnets' ? 1 : ((1 + saturation) * x) / (1 + saturation * x);
  const lost = flux * noLoadAmps;
  return {
    field,
    ohms,
    feedOhms: (part.contacts + part.joint) * ohms,
    brushVolts,
    fluxWebers: flux / atNoLoad,
    referenceAmps,
    saturation,
    fieldTurns: 1,
    drag: { newtonMetres: constantDrag * lost, perRadian: ((1 - constantDrag) * lost) / radians },
    gear: { ratio: gearRatio, efficiency: hasGears(machine) ? gearEfficiency[machine.layout as 'reduction'] : 1 },
    shortedCoils: 0,
    coil: {
      coils: coil.coils,
      polePairs: coil.polePairs,
      ohms: coil.shareOfArmature * part.armature * ohms,
      henries: coil.henries * (ratedVolts / 12) ** 2,
    },
    turn: { deadCoils: 0, ohms: 0, newtonMetres: 0 },
    leakOhms: Infinity,
    clutchNewtonMetres: Infinity,
  };
}

/** Resistances of the parts as they are, of one machine at 20 °C. */
export function partOhms(machine: Starter): Readonly<Record<keyof (typeof shares)['series'], number>> {
  const part = shares[hasMagnets(machine) ? 'magnets' : 'series'];
  const ohms = totalOhms(machine);
  const of = (name: keyof typeof part) => part[name] * ohms;
  return {
    contacts: of('contacts'),
    joint: of('joint'),
    field: of('field'),
    brushes: of('brushes'),
    armature: of('armature'),
  };
}

/** A leak that no circuit feels. */
const sound = 1e9;

const soundQuantities = (machine: Starter): Quantities => {
  const part = partOhms(machine);
  const battery = batteryOf(machine);
  return {
    'closed-contacts': part.contacts,
    joint: part.joint,
    field: part.field,
    brushes: part.brushes,
    armature: part.armature,
    flux: 1,
    drag: 1,
    'field-turns': 1,
    'shorted-coils': 0,
    'open-coils': 0,
    'turn-ohms': soundTurn.ofBrushes * part.brushes,
    'turn-drag': soundTurn.ofDrag,
    'armature-core': sound,
    'field-case': sound,
    'main-case': sound,
    clutch: Infinity,
    cells: battery.volts,
    battery: battery.ohms,
  };
};

function apply(quantities: Record<keyof Quantities, number>, edit: Edit): void {
  if (!isQuantity(edit.element) || 'open' in edit) return;
  const name = edit.element as keyof Quantities;
  const was = quantities[name];
  quantities[name] = 'set' in edit ? edit.set : 'add' in edit ? was + edit.add : was * edit.scale;
}

/** What a machine's plate settles once for all: its motor, and every quantity of a sound one. */
interface Plate {
  readonly motor: Motor;
  readonly quantities: Quantities;
}
const plates = new WeakMap<Starter, Plate>();
function plateOf(machine: Starter): Plate {
  let plate = plates.get(machine);
  if (!plate) {
    plate = { motor: plateMotor(machine, totalOhms(machine)), quantities: soundQuantities(machine) };
    plates.set(machine, plate);
  }
  return plate;
}

export function starterFed(machine: Starter, faults: readonly RunningFault[], celsius: number, off: Off = {}): Fed {
  const { motor: plate, quantities } = plateOf(machine);
  const more = (name: string) => 1 + (off[name] ?? 0);
  const warm = 1 + copperPerKelvin * (celsius - 20);
  const q: Record<keyof Quantities, number> = { ...quantities };
  q['closed-contacts'] *= more('contacts');
  q.joint *= more('contacts');
  q.field *= more('motor') * warm;
  q.brushes *= more('brushes');
  q.armature *= more('motor') * warm;
  q.flux *= more('flux');
  q.drag *= more('drag');
  q.cells *= more('cells');
  q.battery *= more('battery') * (1 + batteryPerKelvin * (celsius - 20));
  for (const { edits } of faults) for (const edit of edits) apply(q, edit);
  const drag = { newtonMetres: plate.drag.newtonMetres * q.drag, perRadian: plate.drag.perRadian * q.drag };
  const shortedCoils = Math.min(q['shorted-coils'], plate.coil.coils - 1);
  const leak = 1 / (1 / q['armature-core'] + 1 / q['field-case'] + 1 / q['main-case']);
  const feedOhms = q['closed-contacts'] + q.joint;
  return {
    motor: {
      ...plate,
      ohms: feedOhms + q.field + q.brushes + q.armature,
      feedOhms,
      fluxWebers: plate.fluxWebers * q.flux,
      saturation: plate.saturation * more('saturation'),
      fieldTurns: q['field-turns'],
      drag,
      shortedCoils,
      turn: {
        deadCoils: shortedCoils + q['open-coils'],
        ohms: q['turn-ohms'],
        newtonMetres: q['turn-drag'] * drag.newtonMetres,
      },
      leakOhms: leak > 1e6 ? Infinity : leak,
      clutchNewtonMetres: q.clutch,
    },
    source: { volts: q.cells, ohms: q.battery },
    contactOhms: q['closed-contacts'],
  };
}

/** Held on the bench battery, Nm at the pinion. */
export const heldNewtonMetres = (machine: Starter): number =>
  motorRun(plateOf(machine).motor, batteryOf(machine), 'held').newtonMetres;

/** Inductance of its windings, inertia of armature and gear, bars and their ripple [from memory]. */
export const dynamicsOf = ({ ratedVolts, ratedKilowatts }: Starter): MotorDynamics => ({
  henries: 60e-6 * (ratedVolts / 12) ** 2,
  kilogramSquareMetres: 2.5e-4 * ratedKilowatts,
  bars: coil.coils,
  rippleShare: 0.03,
});

/** How far a motor may lie from its plate, in ln [from memory]. */
export const starterPriors: MotorPriors = { ohms: 0.2, flux: 0.15, drag: 0.3, saturation: 0.3 };

/** What a curve may be like; the sound one first. */
export const starterShapes: readonly OutputShape[] = [
  { name: 'a sound motor' },
  { name: 'resistance in it', fault: { id: 'contacts-burnt', severity: 0.012 } },
  { name: 'drag', fault: { id: 'bushes-worn', severity: 2.5 } },
  { name: 'a weak field', fault: { id: 'field-turns', severity: 0.4 } },
  { name: 'weak magnets', fault: { id: 'magnets-weak', severity: 0.2 } },
  { name: 'a drive that slips', fault: { id: 'drive-slips', severity: 0.12 } },
  { name: 'shorted armature coils', fault: { id: 'armature-turns', severity: 2 } },
];
