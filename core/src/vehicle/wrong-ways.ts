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
