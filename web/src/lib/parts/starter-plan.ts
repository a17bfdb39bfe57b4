import { hasGears, hasMagnets, hasSolenoid, type Starter } from '@refectum/core/machines';
import type { Caption, Placed, Plan } from './plan.ts';

const size = { width: 430, top: 0, bottom: 396 };
const postY = 44;
const caseY = 268;
const commandX = 120;
const motorX = 230;
const axisX = 346;

/** Lays out a starter as it is built: posts above, the motor down its right side to the case. */
export function starterPlan(machine: Starter): Plan {
  const solenoid = hasSolenoid(machine);
  const magnets = hasMagnets(machine);
  const placed = (part: string, kind: Placed['kind'], x: number, y: number, turn = 0, label = ''): Placed => ({
    part,
    kind,
    label,
    turn,
    x,
    y,
  });
  const say = (text: string, x: number, y: number, anchor: Caption['anchor'] = 'middle'): Caption => ({
    text,
    x,
    y,
    anchor,
  });
  const gears = [
    ...(solenoid
      ? [
          ['plunger', 'plunger'],
          ['fork', 'fork'],
        ]
      : []),
    ['drive', 'drive'],
    ['pinion', 'pinion'],
    ...(hasGears(machine) ? [['gears', 'gears']] : []),
    ['bushes', 'bush'],
    ['armature-shaft', 'shaft'],
    ['case', 'case'],
    ['bench-battery', 'battery'],
  ] as const;
  const step = 398 / gears.length;
  return {
    size,
    parts: [
      placed('contacts', 'contacts', 150, postY),
      placed('terminals', 'output', 288, postY, 90),
      placed('hold-in', 'winding', commandX, 206),
      ...(solenoid ? [placed('pull-in', 'winding', (commandX + motorX) / 2, 140, 90)] : []),
      magnets ? placed('magnets', 'magnets', axisX - 48, 112) : placed('field', 'winding', axisX, 92),
      placed('brushes', 'brush', axisX, 146),
      placed('armature', 'armature', axisX, 190),
      placed('commutator', 'rings', axisX - 48, 190),
      ...gears.map(([part, label], n) => placed(part!, 'gear', 16 + step * (n + 0.5), 336, 0, label!)),
    ],
    wires: [
      `M40 ${postY}H${axisX}V${caseY}`,
      `M20 ${caseY}H410`,
      `M${commandX} 140V${caseY}`,
      ...(solenoid ? [`M${commandX} 140H${motorX}V${postY}`] : []),
      `M${axisX + 20} 190H394V${caseY}`,
      `M${axisX - 40} 190H${axisX - 20}`,
    ],
    nodes: {
      main: { x: 56, y: postY },
      motor: { x: motorX, y: postY },
      lead: { x: 322, y: postY },
      command: { x: commandX, y: 140 },
      case: { x: 56, y: caseY },
      'field-end': { x: axisX, y: 124 },
      bar: { x: axisX, y: 168 },
      'bar-opposite': { x: axisX, y: 212 },
      shaft: { x: 394, y: 190 },
    },
    dots: [
      { x: 56, y: postY },
      { x: motorX, y: postY },
      { x: commandX, y: 140 },
      { x: commandX, y: caseY },
      { x: axisX, y: caseY },
    ],
    captions: [
      say('main', 56, 26),
      say('motor', motorX, 26),
      say('command', commandX - 10, 132, 'end'),
      say('case', 20, caseY + 20, 'start'),
      ...(solenoid ? [say('pull-in', (commandX + motorX) / 2, 122)] : []),
      say(solenoid ? 'hold-in' : 'switch coil', commandX - 16, 210, 'end'),
      say(
        magnets ? 'magnets' : 'field',
        magnets ? axisX - 48 : axisX - 18,
        magnets ? 92 : 96,
        magnets ? 'middle' : 'end',
      ),
      say('shaft', 400, 186, 'start'),
      say('commutator', axisX - 62, 194, 'end'),
    ],
  };
}
