import { type Check, type Equipment, findingCheck, type RunSetup, tilted } from '../../../checks/index.ts';
import type { RunInstrument } from '../../../instruments/index.ts';
import type { Unit } from '../../../quantity/index.ts';
import { benchBattery } from '../motor.ts';
import { hasMagnets, hasSolenoid, type Starter } from '../parameters.ts';
import { eachTurn } from './each-turn.ts';
import { freeSpin } from './free-spin.ts';
import type { Shown } from '../runner.ts';

const kick = 'Clamp it: it kicks. Eyes covered, no sleeves, fingers off the pinion.';
const rest = '10 s at most, then 2 min of rest.';
const gas = 'No sparks near the battery: clip on at the starter last.';

/** Spinning free: all that is seen of one run. */
const free = 'free';
/** Of the torque that it has held: where a loaded point is taken [common practice, no source]. */
export const loadedShare = 0.35;

const units: Readonly<Record<RunInstrument, Unit>> = {
  clamp: 'amps',
  voltmeter: 'volts',
  tachometer: 'rpm',
  'torque arm': 'newtonMetres',
};

interface Read {
  readonly id: string;
  readonly name: string;
  readonly minutes: number;
  readonly run?: string;
  readonly shows: Shown;
  readonly instrument: RunInstrument;
  readonly held: RunSetup['held'];
  readonly how: string;
  readonly tells: string;
  readonly cautions: readonly string[];
  readonly needs?: Equipment;
}

/** At the battery's posts, over the contacts, or at the starter's own post. */
function probesOf(shows: Shown): RunSetup['probes'] {
  if (shows.startsWith('battery')) return { red: 'battery+', black: 'battery-' };
  return { red: 'main', black: shows === 'contact-drop' ? 'motor' : 'case' };
}

const read = ({ shows, instrument, held, ...rest }: Read): Check => ({
  ...rest,
  species: rest.id,
  place: '',
  assembly: 'clamped',
  unit: units[instrument],
  method: { kind: 'run', setup: { held, shows, instrument, probes: probesOf(shows) } },
});

/** Clamped, on the bench battery. */
export const onBenchChecks = (machine: Starter, heldNewtonMetres: number): Check[] => {
  const running = { minutes: 0.3, run: free, held: { newtonMetres: 0 }, cautions: [kick, rest] };
  const spin = freeSpin(machine);
  const load = Math.max(1, Math.round(loadedShare * heldNewtonMetres));
  const loaded = {
    minutes: 0.5,
    run: 'braked',
    held: { newtonMetres: load },
    cautions: [kick, rest],
    needs: 'brake' as const,
  };
  const held = {
    minutes: 0.5,
    run: 'held',
    held: { rpm: 0 },
    cautions: [kick, 'Held: under 3 s, then 2 min of rest.'],
    needs: 'brake' as const,
  };
  return [
    read({
      id: 'battery-rested',
      name: 'Bench battery, rested volts',
      minutes: 0.3,
      shows: 'battery-rested',
      instrument: 'voltmeter',
      held: {},
      how: 'Across the battery’s posts, nothing drawn for some minutes.',
      tells: 'a bench battery that is flat: it fails every starter',
      cautions: [gas],
    }),
    read({
      id: 'battery-loaded',
      name: 'Bench battery, volts under load',
      minutes: 1,
      shows: 'battery-loaded',
      instrument: 'voltmeter',
      held: { amps: benchBattery.crankingAmps / 2 },
      how: `Carbon pile at ${benchBattery.crankingAmps / 2} A for 15 s, volts at the posts at the end.`,
      tells: 'a weak bench battery from a bad starter',
      cautions: ['15 s, then off and cool.', gas],
    }),
    whole(machine, spin),
    read({
      id: 'no-load-volts',
      name: 'No load: volts at the starter',
      ...running,
      shows: 'volts',
      instrument: 'voltmeter',
      how: 'Main terminal to case while it spins free.',
      tells: 'the sag of battery and leads',
    }),
    read({
      id: 'no-load-amps',
      name: 'No load: amps',
      ...running,
      shows: 'amps',
      instrument: 'clamp',
      how: 'Clamp zeroed, round the battery’s lead, while it spins free at steady speed.',
      tells: 'drag, shorted turns and a weak field',
    }),
    read({
      id: 'no-load-rpm',
      name: 'No load: speed of the pinion',
      ...running,
      shows: 'rpm',
      instrument: 'tachometer',
      how: 'Tachometer at the pinion, or the trace’s ripple, at steady speed.',
      tells: 'drag from a weak field',
    }),
    read({
      id: 'contact-drop',
      name: 'No load: drop over the contacts',
      ...running,
      minutes: 0.4,
      shows: 'contact-drop',
      instrument: 'voltmeter',
      how: 'Main terminal to motor terminal, volts, while it spins: millivolts are sound. Probe only once it spins.',
      tells: 'burnt contacts, which the run alone hides',
    }),
    eachTurn(machine, spin, running),
    noise(machine),
    ...(hasSolenoid(machine) ? [motorAlone(spin)] : []),
    read({
      id: 'loaded-amps',
      name: `Braked to ${load} Nm: amps`,
      ...loaded,
      shows: 'amps',
      instrument: 'clamp',
      how: `Brake or arm at the pinion, ${load} Nm: the clamp once it settles.`,
      tells: 'drag and a weak field under load',
    }),
    read({
      id: 'loaded-rpm',
      name: `Braked to ${load} Nm: speed of the pinion`,
      ...loaded,
      shows: 'rpm',
      instrument: 'tachometer',
      how: `Brake or arm at the pinion, ${load} Nm: the tachometer once it settles.`,
      tells: 'resistance, which no load hides',
    }),
    read({
      id: 'loaded-drop',
      name: `Braked to ${load} Nm: drop over the contacts`,
      ...loaded,
      minutes: 0.4,
      shows: 'contact-drop',
      instrument: 'voltmeter',
      how: `Main terminal to motor terminal, volts, at ${load} Nm.`,
      tells: 'contacts from brushes',
    }),
    read({
      id: 'held-amps',
      name: 'Held: amps',
      ...held,
      shows: 'amps',
      instrument: 'clamp',
      how: 'Pinion held by the arm, under 3 s: the clamp’s highest steady value.',
      tells: 'all resistance at once, the battery’s too',
    }),
    read({
      id: 'held-volts',
      name: 'Held: volts at the starter',
      ...held,
      shows: 'volts',
      instrument: 'voltmeter',
      how: 'Main terminal to case while it is held.',
      tells: 'the battery’s resistance from the starter’s',
    }),
    read({
      id: 'held-torque',
      name: 'Held: torque at the pinion',
      ...held,
      shows: 'torque',
      instrument: 'torque arm',
      how: 'Pull of the arm times its length, under 3 s.',
      tells: 'weak magnets and shorted field from the rest',
    }),
  ];
};

/**
 * How it throws: odds from memory, by what is wrong with the solenoid. How it spins then follows from running it; a
 * drive that sticks on its thread leaves the motor spinning by itself.
 */
function whole(machine: Starter, spin: ReturnType<typeof freeSpin>): Check {
  const thrown = {
    usual: [0.975, 0.005, 0.005, 0.003, 0.005, 0.004, 0.003],
    odds: {
      'contacts-burnt': [0.953, 0.005, 0.025, 0.003, 0.008, 0.006, 0.003],
      'contacts-welded': [0.3, 0.01, 0.02, 0.02, 0.01, 0.02, 0.62],
      'pull-in-open': [0.01, 0.01, 0.02, 0.01, 0.01, 0.93, 0.01],
      'pull-in-turns': [0.8, 0.01, 0.01, 0.01, 0.02, 0.14, 0.01],
      'hold-in-open': [0.02, 0.01, 0.01, 0.01, 0.93, 0.01, 0.01],
      'hold-in-turns': [0.7, 0.01, 0.01, 0.01, 0.24, 0.02, 0.01],
      'plunger-sticks': [0.35, 0.01, 0.02, 0.05, 0.02, 0.35, 0.2],
      'fork-worn': [0.3, 0.01, 0.03, 0.63, 0.01, 0.01, 0.01],
      ...(hasSolenoid(machine) ? {} : { 'drive-slips': [0.2, 0.01, 0.01, 0.75, 0.01, 0.01, 0.01] }),
      'bench-battery-weak': [0.885, 0.005, 0.005, 0.003, 0.09, 0.009, 0.003],
    },
  };
  return findingCheck({
    id: 'whole',
    name: 'Whole: throws and spins',
    assembly: 'clamped',
    minutes: 0.5,
    run: free,
    how: hasSolenoid(machine)
      ? 'Battery to main terminal and case, then bridge main terminal to command.'
      : 'Battery to the switch and case, then bridge its command.',
    tells: 'solenoid from motor from drive, in one go',
    cautions: [kick, rest, gas],
    outcomes: [
      { id: 'right', name: 'Throws and spins', word: 'sound' },
      {
        id: 'slow',
        name: 'Throws, spins slowly',
        word: 'failed',
        then: 'Amps and volts say whether drag or resistance.',
      },
      {
        id: 'throws',
        name: 'Throws, doesn’t spin',
        word: 'failed',
        then: 'Contacts, brushes, armature: motor alone next.',
      },
      { id: 'no-throw', name: 'Spins, doesn’t throw', word: 'failed', then: 'Fork or drive.' },
      { id: 'chatters', name: 'Chatters', word: 'failed', then: 'Hold-in winding, or a flat bench battery.' },
      { id: 'nothing', name: 'Nothing', word: 'failed', then: 'Solenoid alone, then motor alone.' },
      { id: 'runs-on', name: 'Runs on', word: 'failed', then: 'Off at the battery. Contacts welded or plunger stuck.' },
    ],
    chances: (faults) => {
      const [right, slow, throws, ...rest] = tilted(thrown, faults);
      const spins = right! + slow! + throws!;
      return [...spin(faults, 'main').map((chance) => spins * chance), ...rest];
    },
  });
}

const motorAlone = (spin: ReturnType<typeof freeSpin>): Check =>
  findingCheck({
    id: 'motor-alone',
    name: 'Motor alone: spins, doesn’t throw',
    assembly: 'clamped',
    minutes: 0.4,
    run: 'motor alone',
    how: 'Battery straight to the motor terminal and case, the command not fed.',
    tells: 'the motor from solenoid and contacts',
    cautions: [kick, rest],
    outcomes: [
      { id: 'spins', name: 'Spins', word: 'sound' },
      { id: 'slow', name: 'Spins slowly', word: 'failed', then: 'Drag or resistance in the motor itself.' },
      { id: 'stands', name: 'Stands', word: 'failed', then: 'Brush, field or armature open, or seized: open it.' },
    ],
    chances: (faults) => spin(faults, 'motor'),
  });

const noise = (machine: Starter): Check =>
  findingCheck({
    id: 'noise',
    name: 'Noise without load',
    assembly: 'clamped',
    minutes: 0.2,
    run: free,
    how: 'Listen while it spins up, runs and runs down.',
    tells: 'rubbing, gears, a pinion that is silent while the motor runs',
    cautions: [kick, rest],
    outcomes: [
      { id: 'even', name: 'Even', word: 'sound' },
      { id: 'rubs', name: 'Rubs or squeals', word: 'failed', then: 'Bushes, or armature on the poles.' },
      { id: 'rattles', name: 'Rattles or grinds', word: 'failed', then: 'Gears, pinion or drive.' },
      { id: 'silent', name: 'Motor spins, pinion stands', word: 'failed', then: 'The drive slips: a new one.' },
    ],
    usual: [0.965, 0.015, 0.015, 0.005],
    odds: {
      'bushes-worn': [0.4, 0.52, 0.07, 0.01],
      'shaft-rubs': [0.25, 0.7, 0.04, 0.01],
      ...(hasMagnets(machine) ? { 'magnets-weak': [0.8, 0.15, 0.04, 0.01] } : {}),
      'gears-worn': [0.3, 0.08, 0.61, 0.01],
      'pinion-chipped': [0.8, 0.01, 0.18, 0.01],
      'drive-slips': [0.55, 0.01, 0.09, 0.35],
      'drive-seized': [0.85, 0.04, 0.1, 0.01],
      'fork-worn': [0.8, 0.01, 0.18, 0.01],
    },
  });
