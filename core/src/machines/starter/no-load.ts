import { type MotorPoint, motorRun } from '../../curves/index.ts';
import type { NoLoadWord, Read } from '../family.ts';
import { starterFed } from './motor.ts';
import { hasMagnets, type Starter } from './parameters.ts';
import { starterChecks } from './checks/index.ts';

/** The points of a starter's curve among what was read; a later reading of a check stands for an earlier one. */
export function starterPoints(machine: Starter, readings: readonly Read[]): readonly MotorPoint[] {
  const points = new Map<MotorPoint['load'], Record<string, number>>();
  for (const check of starterChecks(machine)) {
    const { outcome } = readings.findLast((reading) => reading.check === check.id) ?? {};
    if (check.method.kind !== 'run' || outcome?.kind !== 'value') continue;
    const { held, shows } = check.method.setup;
    const name = ({ amps: 'amps', rpm: 'rpm', volts: 'volts', torque: 'newtonMetres' } as const)[shows as 'amps'];
    if (!name) continue;
    const load = held.rpm === 0 ? 'held' : held.newtonMetres ? 'loaded' : 'none';
    const point = points.get(load) ?? (held.newtonMetres ? { newtonMetres: held.newtonMetres } : {});
    points.set(load, { ...point, [name]: outcome.value });
  }
  return [...points].map(([load, point]) => ({ load, ...point })).filter(({ load, ...point }) => tells(load, point));
}

const tells = (load: MotorPoint['load'], { amps, rpm, newtonMetres }: Omit<MotorPoint, 'load'>): boolean =>
  amps !== undefined || rpm !== undefined || (load === 'held' && newtonMetres !== undefined);

/** Beyond this share beside a sound starter at the same volts it is high or low: twice the spread of its kind. */
const aside = { amps: 0.35, rpm: 0.2 } as const;
/** Less than this share is nothing. */
const nothing = 0.05;

type Level = 'zero' | 'low' | 'normal' | 'high';
const levelOf = (ratio: number, share: number): Level =>
  ratio < nothing ? 'zero' : ratio < 1 - share ? 'low' : ratio > 1 + share ? 'high' : 'normal';

/** The classical bench table [from memory]; nothing in the belief is tuned to it. */
const table = (machine: Starter): readonly (readonly [amps: Level, speed: Level, pointsTo: string])[] => [
  ['normal', 'normal', 'motor sound without load'],
  ['high', 'low', 'drag: bushes, bent armature, rubbing pole; or shorted armature, grounded turns'],
  ['high', 'zero', 'seized, or a dead ground in terminal, field or armature'],
  ['zero', 'zero', 'open: brushes, field, armature, contacts, lead'],
  ['low', 'low', 'high resistance: connections, brushes, commutator, contacts'],
  ['high', 'high', hasMagnets(machine) ? 'weak magnets' : 'shorted field'],
];

/** What the table says of a run without load; undefined while amps or speed are missing. */
export function noLoadWord(machine: Starter, point: MotorPoint, celsius: number): NoLoadWord | undefined {
  const { amps, rpm } = point;
  if (point.load !== 'none' || amps === undefined || rpm === undefined) return undefined;
  const { motor, source } = starterFed(machine, [], celsius);
  const fed = point.volts === undefined ? source : { volts: point.volts, ohms: 1e-6 };
  const sound = motorRun(motor, fed, { newtonMetres: 0 });
  const levels = { amps: levelOf(amps / sound.amps, aside.amps), speed: levelOf(rpm / sound.rpm, aside.rpm) };
  const row = table(machine).find(([a, s]) => a === levels.amps && s === levels.speed);
  return { ...levels, pointsTo: row?.[2] ?? 'no row of the table: see the suspects' };
}
