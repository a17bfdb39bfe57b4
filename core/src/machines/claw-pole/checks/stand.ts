import { type Check, findingCheck } from '../../../checks/index.ts';
import type { Orders } from '../../../waveform/index.ts';
import { type ClawPole } from '../parameters.ts';
import { ratingPoint } from '../running.ts';

const spinning = ['Guard on, no sleeve, ring or glove near the pulley.', 'Never take the battery off while it turns.'];
const bypassing = ['Load first, then the jumper: unloaded it runs to 15–20 V and more. Seconds, not minutes.'];

/** Of all that alternates, rms: a pattern's own order must carry as much. */
const strong = 0.5;
/** Order 3 over order 1: below it a diode is lost, above one is shorted; from our own simulation at 1,800 to 6,000 rpm. */
const shortedFrom = 0.22;

/** The pattern of a trace by the ratios between its orders: amperes or volts, whatever the battery. */
export function rippleOf({ rms, ripple }: Orders): string | undefined {
  const share = (order: number) => rms[order - 1]! / ripple;
  if (!(ripple > 0)) return undefined;
  if (share(1) >= strong) return rms[2]! / rms[0]! >= shortedFrom ? 'short' : 'one';
  if (share(2) >= strong) return 'two';
  return share(6) >= strong ? 'six' : undefined;
}

/** The unit clamped on the stand, belt on, battery and load connected. */
export function onStand(machine: ClawPole): Check[] {
  const { volts } = ratingPoint(machine);
  const jumper =
    machine.regulatorSide === 'ground'
      ? 'field terminal to case (the regulator switches to ground)'
      : 'field terminal to output post (the regulator switches to supply)';
  const output = (rpm: number): Check => ({
    id: `output-bypassed:${rpm}`,
    species: 'output-bypassed',
    place: `${rpm}`,
    name: `Output at ${rpm} rpm, regulator bypassed`,
    assembly: 'stand',
    minutes: 1,
    unit: 'amps',
    how: `Rotor at ${rpm} rpm. Load on, jumper from ${jumper}; draw the load down until the post holds ${volts} V, read the clamp.`,
    tells: 'a weak machine from a weak regulator',
    cautions: [...spinning, ...bypassing],
    method: { kind: 'run', setup: { rpm, volts, shows: 'output' } },
  });
  return [
    findingCheck({
      id: 'regulation',
      name: 'Regulated volts, light to heavy load',
      assembly: 'stand',
      minutes: 1,
      how: 'At 3000 rpm: a light load, then half the rated amps, then light again. Read the volts at the post each time.',
      tells: 'the regulator’s set-point and how it holds',
      cautions: spinning,
      outcomes: [
        { id: 'holds', name: 'Holds its set-point', word: 'sound' },
        {
          id: 'none',
          name: 'No charge: battery volts',
          word: 'failed',
          then: 'Bypass the regulator before blaming it.',
        },
        {
          id: 'low',
          name: 'Too low, or sags with load',
          word: 'failed',
          then: 'Bypass: if the output comes, the regulator.',
        },
        {
          id: 'high',
          name: 'Too high, runs away',
          word: 'failed',
          then: 'Off at once: above 15 V batteries gas. Regulator, or field to ground past it.',
        },
        { id: 'unsteady', name: 'Swings', word: 'failed', then: 'Brushes and rings first, then the regulator.' },
      ],
      usual: [0.972, 0.005, 0.015, 0.003, 0.005],
      odds: {
        regulator: [0.03, 0.5, 0.2, 0.2, 0.07],
        'rotor-open': [0.003, 0.98, 0.015, 0.001, 0.001],
        'brush-worn': [0.05, 0.8, 0.1, 0.01, 0.04],
        'brush-contact': [0.2, 0.1, 0.2, 0.01, 0.49],
        'rings-dirty': [0.35, 0.05, 0.35, 0.01, 0.24],
        'rotor-core':
          machine.regulatorSide === 'ground' ? [0.25, 0.05, 0.05, 0.63, 0.02] : [0.3, 0.4, 0.28, 0.01, 0.01],
        'rotor-turns': [0.6, 0.02, 0.36, 0.01, 0.01],
        'diode-shorted': [0.1, 0.1, 0.75, 0.02, 0.03],
        'diode-open': [0.55, 0.01, 0.4, 0.02, 0.02],
        'stator-open': [0.3, 0.1, 0.58, 0.01, 0.01],
        'stator-turns': [0.45, 0.05, 0.48, 0.01, 0.01],
        'stator-core': [0.15, 0.15, 0.66, 0.02, 0.02],
        'exciter-open': [0.6, 0.03, 0.34, 0.01, 0.02],
        'exciter-shorted': [0.2, 0.2, 0.55, 0.02, 0.03],
        'pulley-worn': [0.5, 0.15, 0.3, 0.01, 0.04],
      },
    }),
    output(3000),
    output(6000),
    findingCheck({
      id: 'ripple-orders',
      name: 'Ripple by its orders',
      assembly: 'stand',
      minutes: 1,
      how: 'At 3000 rpm, half the rated amps. Clamp or post volts on the oscilloscope, five periods or more; import its file, or say what it looks like.',
      tells: 'a lost or shorted diode, a lost phase; order 6 alone clears bridge and stator',
      cautions: spinning,
      outcomes: [
        { id: 'six', name: 'Six even humps', word: 'sound' },
        {
          id: 'one',
          name: 'A gap once a period',
          word: 'failed',
          then: 'One diode lost: 5 A through each lead names it.',
        },
        {
          id: 'short',
          name: 'Half the period gone',
          word: 'failed',
          then: 'A diode shorted or a phase to core: off the stand.',
        },
        {
          id: 'two',
          name: 'Twice a period, no odd order',
          word: 'failed',
          then: 'A whole phase: open, or shorted turns.',
        },
      ],
      usual: [0.985, 0.005, 0.005, 0.005],
      odds: {
        'diode-open': [0.02, 0.83, 0.13, 0.02],
        'diode-shorted': [0.02, 0.2, 0.76, 0.02],
        'stator-core': [0.45, 0.05, 0.45, 0.05],
        'stator-open': [0.02, 0.04, 0.04, 0.9],
        'stator-turns': [0.3, 0.02, 0.02, 0.66],
      },
      traced: rippleOf,
    }),
    {
      id: 'tap-volts',
      species: 'tap-volts',
      place: '',
      name: 'Phase A against case, mean volts',
      assembly: 'stand',
      minutes: 0.5,
      unit: 'volts',
      how: `At 3000 rpm, field full, post held at ${volts} V: DC volts of phase A’s lead or the tap against the case.`,
      tells: 'on which side a diode was lost: half the post’s volts is sound',
      cautions: [...spinning, ...bypassing],
      method: { kind: 'run', setup: { rpm: 3000, volts, shows: 'tap' } },
    },
    findingCheck({
      id: 'noise',
      name: 'Noise under load',
      assembly: 'stand',
      minutes: 0.3,
      how: 'At 3000 rpm: listen with the load off, then on.',
      tells: 'an electrical growl from a bearing’s',
      cautions: spinning,
      outcomes: [
        { id: 'quiet', name: 'Quiet, fan only', word: 'sound' },
        { id: 'growl', name: 'Growls with the load', word: 'failed', then: 'Rectifier or stator: look at the ripple.' },
        { id: 'rumble', name: 'Rumbles without load too', word: 'failed', then: 'Bearings: both are renewed.' },
      ],
      usual: [0.97, 0.015, 0.015],
      odds: {
        'diode-open': [0.3, 0.68, 0.02],
        'diode-shorted': [0.15, 0.83, 0.02],
        'stator-open': [0.3, 0.68, 0.02],
        'stator-turns': [0.35, 0.63, 0.02],
        'stator-core': [0.3, 0.68, 0.02],
        'bearing-worn': [0.12, 0.02, 0.86],
        'fan-damaged': [0.4, 0.02, 0.58],
        'shaft-damaged': [0.45, 0.02, 0.53],
        'pulley-worn': [0.7, 0.02, 0.28],
      },
    }),
  ];
}
