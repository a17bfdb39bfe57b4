import type { Check } from '../checks/index.ts';
import { parseQuantity } from '../quantity/index.ts';
import { sets, type Vehicle } from './vehicle.ts';

/** A way of measuring that misleads or breaks something: refused, with the reason and what to do instead. */
export interface WrongWay {
  readonly id: string;
  readonly name: string;
  readonly why: string;
  /** Checks that answer the same question. */
  readonly instead: readonly string[];
}

/** All common practice, no source. */
export const wrongWays: readonly WrongWay[] = [
  {
    id: 'ohms-ground',
    name: 'Ohms of the ground path or a cable',
    why: 'A path that carries current answers an ohmmeter with nonsense: a sound ground cable has read 20 Ω because modules still drew through it. And a cable that passes a milliamp need not pass a hundred amps.',
    instead: ['drop-ground', 'drop-charge', 'crank-drop-ground', 'crank-drop-positive'],
  },
  {
    id: 'ohms-feed',
    name: 'Ohms of a feed at the plug',
    why: 'The feed is live, or goes through a lamp and a module: ohms say nothing there and the meter may suffer. Volts do.',
    instead: ['plug-ignition', 'plug-sense'],
  },
  {
    id: 'battery-off-running',
    name: 'Battery off while it runs, to see if the unit lives',
    why: 'Without the battery the volts leap (load dump) and break regulator, diodes and modules. It proves nothing that the volts at post and battery don’t. If somebody has done it, record that: it says what may be broken.',
    instead: ['battery-taken-off', 'post-raised', 'battery-raised'],
  },
  {
    id: 'surface-charge',
    name: 'State of charge straight after driving',
    why: 'Surface charge stands on top of what the battery holds: 13.0 V just after a drive is not a full battery, nor overcharge.',
    instead: ['rested-volts', 'state-of-charge'],
  },
];

/** More than a full battery shows rested, V for a 12 V set [handbook table of handbook/battery.ts, and 0.25 V of doubt]. */
const mostRested: Readonly<Record<Vehicle['battery'], number>> = { flooded: 12.9, mat: 13.1 };

export interface Caught {
  readonly why: string;
  /** Whether it may be recorded all the same. */
  readonly mayStand: boolean;
}

/**
 * What speaks against a reading on the vehicle before it is believed; undefined when nothing does.
 *
 * @example caught(vehicle, drop along the charge cable, '20 ohm') // refused: ohms on a path that carries current
 * @example caught(vehicle, key-off drain, '0') // a blown ammeter fuse reads so too
 */
export function caught(vehicle: Vehicle, check: Pick<Check, 'id' | 'unit'>, typed: string): Caught | undefined {
  const read = parseQuantity(typed, check.unit);
  if (check.unit === 'volts' && read.kind === 'refused' && parseQuantity(typed, 'ohms').kind === 'value') {
    const { why } = wrongWays.find(({ id }) => id === 'ohms-ground')!;
    return { why: `“${typed.trim()}” are ohms. ${why} Type the volts.`, mayStand: false };
  }
  if (read.kind !== 'value') return undefined;
  const doubt = (why: string): Caught => ({ why, mayStand: true });
  if (check.unit === 'amps' && read.value === 0)
    return doubt(
      'Nothing at all flows: an ammeter whose fuse is blown reads so too. See that it reads something known.',
    );
  if (check.id.startsWith('drain') && read.value < 0)
    return doubt('A drain below 0 A: the clamp was not zeroed, or sits the other way round. Zero it and read again.');
  if (check.id === 'rested-volts' && read.value > mostRested[vehicle.battery] * sets(vehicle))
    return doubt(
      'More than a full battery shows rested: it was driven or charged just before. Take it as “straight after driving”, or take the surface charge off and read again.',
    );
  return undefined;
}
