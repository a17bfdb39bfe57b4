import type { RunSetup } from '../../checks/index.ts';
import { motorRun } from '../../curves/index.ts';
import { normalFrom, seeded } from '../../numeric/index.ts';
import type { Off, Ran, Runner, RunningFault, Shows } from '../family.ts';
import { starterNuisances } from './builds.ts';
import { benchBattery, isQuantity, starterFed } from './motor.ts';
import type { Starter } from './parameters.ts';

/** Relative standard uncertainty of what the equations give [from memory]; of volts, beside it. */
const modelShare = { amps: 0.03, rpm: 0.03, torque: 0.04, volts: 0.002, drop: 0.05, battery: 0.001 } as const;
const voltsSigma = 0.01;
/** Warm from the runs before, °C. */
const usualCelsius = 30;

/** What moves a sound starter's run, and by how much of itself it is tried. */
export const trials: Readonly<Record<string, number>> = {
  flux: 0.05,
  motor: 0.1,
  brushes: 0.2,
  contacts: 0.3,
  drag: 0.2,
  cells: 0.01,
  battery: 0.15,
  saturation: 0.2,
};

/** What is read at the bench: by clamp, by volts at the starter's own posts, by tachometer and arm at the pinion. */
export type Shown = keyof typeof reads;

const reads = {
  amps: { of: 'amps', share: modelShare.amps },
  volts: { of: 'volts', share: modelShare.volts },
  rpm: { of: 'rpm', share: modelShare.rpm },
  torque: { of: 'newtonMetres', share: modelShare.torque },
  'contact-drop': { of: 'drop', share: modelShare.drop },
  'battery-rested': { of: 'rested', share: modelShare.battery },
  'battery-loaded': { of: 'loaded', share: modelShare.volts },
} as const;

function shown(machine: Starter, { held, shows }: RunSetup, faults: readonly RunningFault[], off: Off): number {
  const { motor, source, contactOhms } = starterFed(machine, faults, usualCelsius + (off.celsius ?? 0), off);
  const { of } = reads[shows as Shown];
  if (of === 'rested') return source.volts;
  if (of === 'loaded') return source.volts - (benchBattery.crankingAmps / 2) * source.ohms;
  const run = motorRun(motor, source, held.rpm === 0 ? 'held' : { newtonMetres: held.newtonMetres ?? 0 });
  return of === 'drop' ? run.amps * contactOhms : run[of];
}

export const starterShows =
  (machine: Starter): Shows =>
  (_, setup, faults, off) =>
    shown(machine, setup, faults, off);

/** Runs one starter on its bench battery; faults that leave what is read alone are one run. */
export function starterRunner(machine: Starter): Runner {
  const known = new Map<string, Ran>();
  return (_, setup, faults): Ran => {
    const feels = feltBy(setup.shows as Shown);
    const felt = faults.filter(({ edits }) => edits.some(({ element }) => feels(element)));
    const key = JSON.stringify([setup, felt.map(({ edits }) => edits)]);
    const found = known.get(key) ?? ranOf(machine, setup, felt);
    known.set(key, found);
    return found;
  };
}

/** Whether an element of the starter or of the bench has a part in what is read. */
function feltBy(shows: Shown): (element: string) => boolean {
  if (shows === 'battery-rested') return (element) => element === 'cells';
  if (shows === 'battery-loaded') return (element) => element === 'cells' || element === 'battery';
  return isQuantity;
}

const perKelvin = 10;

/** So many units tell how far the sum of straight lines is off where two things are off at once. */
const units = 8;
/** A share that is off by more would leave nothing of it. */
const leastOff = -0.8;
/** Starters strewn as their kind is, the same ones each time. */
const strewnOffs: readonly Off[] = (() => {
  const normal = normalFrom(seeded(1));
  const moving = starterNuisances().filter(({ name }) => name in trials || name === 'celsius');
  const off = (sigma: number) => Math.max(sigma * normal(), leastOff);
  return Array.from({ length: units }, () =>
    Object.fromEntries(moving.map(({ name, sigma }) => [name, name === 'celsius' ? sigma * normal() : off(sigma)])),
  );
})();

function ranOf(machine: Starter, setup: RunSetup, faults: readonly RunningFault[]): Ran {
  const at = (off: Off) => shown(machine, setup, faults, off);
  const value = at({});
  const move = (name: string, by: number) => (at({ [name]: by }) - at({ [name]: -by })) / (2 * by);
  const { share } = reads[setup.shows as Shown];
  let moves: Ran['moves'] | undefined;
  let strewn: Ran['strewn'];
  return {
    value,
    sigma: Math.hypot(share * value, setup.instrument === 'voltmeter' ? voltsSigma : 0),
    // Worked out where somebody asks for more than the value.
    get moves() {
      return (moves ??= {
        ...Object.fromEntries(Object.entries(trials).map(([name, by]) => [name, move(name, by)])),
        celsius: move('celsius', perKelvin),
      });
    },
    get strewn() {
      return (strewn ??= strewnOffs.map((off) => ({ off, value: at(off) })));
    },
  };
}
