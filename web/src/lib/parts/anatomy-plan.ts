import { type ClawPole, type Machine, phases } from '@refectum/core/machines';
import type { Caption, Placed, Plan, Point, Terminal } from './plan.ts';
import { starterPlan } from './starter-plan.ts';

const size = { width: 430, top: -22, bottom: 384 };

/** What turns, holds and joins has no place in a circuit: a row of its own below. */
const gear = [
  ['bearings', 'bearings'],
  ['pulley', 'pulley'],
  ['fan', 'fan'],
  ['shaft', 'shaft'],
  ['case', 'case'],
  ['terminals', 'terminals'],
] as const;

const outputY = 34;
const caseY = 226;
const legX: Readonly<Record<string, number>> = { A: 150, B: 204, C: 258, N: 308 };
const leadY: Readonly<Record<string, number>> = { A: 104, B: 130, C: 156, N: 182 };
const exciterX: Readonly<Record<string, number>> = { A: 336, B: 370, C: 404 };
const exciterY = 60;
const fieldY = 280;

/** Any unit's circuit, as its family is built. */
export const planOf = (machine: Machine): Plan =>
  machine.family === 'starter' ? starterPlan(machine) : clawPolePlan(machine);

function clawPolePlan(machine: ClawPole): Plan {
  const legs = [...phases, ...(machine.diodes === 8 ? ['N'] : [])];
  const stator = statorPlan(machine);
  const field = fieldPlan(machine);
  const nodes: Record<string, Terminal> = {
    output: { x: 396, y: outputY, fromAbove: true },
    case: { x: 40, y: caseY },
    ...stator.nodes,
    ...field.nodes,
  };
  for (const leg of legs) nodes[`leg:${leg}`] = { x: legX[leg]!, y: leadY[leg]! };
  if (machine.exciterDiodes) nodes.exciter = { x: 387, y: exciterY, fromAbove: true };
  const wires = [
    `M${legX.A} ${outputY}H418`,
    `M20 ${caseY}H340`,
    ...legs.map((leg) => `M${legX[leg]} ${outputY}V${caseY}`),
    ...stator.wires,
    ...field.wires,
  ];
  if (machine.exciterDiodes) {
    wires.push(`M${exciterX.A} ${exciterY}H404`);
    for (const phase of phases) {
      wires.push(`M${legX[phase]} ${leadY[phase]}H${exciterX[phase]}V${exciterY}`);
    }
  }
  return {
    size,
    captions: captionsOf(machine),
    parts: [
      ...legs.flatMap((leg): Placed[] => [
        { part: `diode:${leg}+`, kind: 'diode', label: `${leg}+`, turn: 0, x: legX[leg]!, y: 68 },
        { part: `diode:${leg}-`, kind: 'diode', label: `${leg}−`, turn: 0, x: legX[leg]!, y: 203 },
      ]),
      ...(machine.exciterDiodes
        ? phases.map((phase): Placed => ({
            part: `exciter:${phase}`,
            kind: 'exciter',
            label: phase,
            turn: 0,
            x: exciterX[phase]!,
            y: 84,
          }))
        : []),
      { part: 'output', kind: 'output', label: '', turn: 0, x: 362, y: outputY },
      { part: 'stator-insulation', kind: 'output', label: '', turn: 0, x: 84, y: caseY },
      ...stator.parts,
      ...field.parts,
      ...gear.map(([part, label], i): Placed => ({ part, kind: 'gear', label, turn: 0, x: 36 + 71.6 * i, y: 346 })),
    ],
    wires,
    nodes,
    dots: [
      ...legs.flatMap((leg) => [
        { x: legX[leg]!, y: outputY },
        { x: legX[leg]!, y: caseY },
        { x: legX[leg]!, y: leadY[leg]! },
      ]),
    ],
  };
}

const regulatorNames = {
  'built-in': 'regulator',
  commanded: 'regulator, commanded',
  separate: 'regulator, apart',
  'two-contact': 'two contacts, apart',
} as const;

function captionsOf(machine: ClawPole): Caption[] {
  const supply = machine.regulatorSide === 'supply';
  return [
    { text: 'output post', x: 336, y: 22, anchor: 'end' },
    { text: 'case', x: 20, y: 219, anchor: 'start' },
    { text: machine.connection === 'unknown' ? 'star or delta' : machine.connection, x: 4, y: 62, anchor: 'start' },
    ...(machine.exciterDiodes ? [{ text: 'exciter', x: 330, y: 58, anchor: 'end' as const }] : []),
    { text: regulatorNames[machine.regulator ?? 'built-in'], x: supply ? 70 : 308, y: 260, anchor: 'middle' },
    { text: 'rotor', x: supply ? 232 : 140, y: 266, anchor: 'middle' },
  ];
}

type Part = Pick<Plan, 'parts' | 'wires' | 'nodes'>;

/** Star or delta; a star is drawn when it isn't known. */
function statorPlan(machine: ClawPole): Part {
  const wire = (leg: string, from: Point) => `M${from.x} ${from.y}V${leadY[leg]}H${legX[leg]}`;
  if (machine.connection === 'delta') {
    const corner: Record<string, Point> = { A: { x: 66, y: 74 }, B: { x: 112, y: 146 }, C: { x: 20, y: 146 } };
    const middle = (p: Point, q: Point) => ({ x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 });
    const winding = (phase: string, from: string, to: string): Placed => ({
      part: `stator:${phase}`,
      kind: 'winding',
      label: '',
      turn: (Math.atan2(corner[to]!.x - corner[from]!.x, corner[from]!.y - corner[to]!.y) * 180) / Math.PI,
      ...middle(corner[from]!, corner[to]!),
    });
    return {
      parts: [winding('A', 'B', 'C'), winding('B', 'C', 'A'), winding('C', 'A', 'B')],
      wires: [
        `M66 74L112 146L20 146Z`,
        `M66 74H128V${leadY.A}H${legX.A}`,
        `M112 146V${leadY.B}H${legX.B}`,
        `M20 146V${leadY.C! + 12}H128V${leadY.C}H${legX.C}`,
      ],
      nodes: {
        'lead:A': { x: 128, y: leadY.A! },
        'lead:B': { x: 128, y: leadY.B! },
        'lead:C': { x: 128, y: leadY.C! },
      },
    };
  }
  const star = { x: 56, y: 130 };
  const tips: Record<string, Point> = { A: { x: 100, y: 82 }, B: { x: 116, y: 130 }, C: { x: 100, y: 178 } };
  return {
    parts: phases.map((phase) => ({
      part: `stator:${phase}`,
      kind: 'winding',
      label: phase,
      turn: (Math.atan2(tips[phase]!.x - star.x, star.y - tips[phase]!.y) * 180) / Math.PI,
      x: (star.x + tips[phase]!.x) / 2,
      y: (star.y + tips[phase]!.y) / 2,
    })),
    wires: [
      ...phases.map((phase) => `M${star.x} ${star.y}L${tips[phase]!.x} ${tips[phase]!.y}`),
      ...phases.map((phase) => wire(phase, tips[phase]!)),
      ...(machine.diodes === 8 ? [`M${star.x} ${star.y}V206H134V${leadY.N}H${legX.N}`] : []),
    ],
    nodes: {
      ...Object.fromEntries(phases.map((phase) => [`lead:${phase}`, { x: 130, y: leadY[phase]! }])),
      star,
    },
  };
}

/** Supply, brushes, rings, rotor and regulator in one row below the case rail. */
function fieldPlan(machine: ClawPole): Part {
  const regulatorFirst = machine.regulatorSide === 'supply';
  const x = regulatorFirst
    ? { supply: 20, regulator: 70, field: 118, brush1: 150, ring1: 184, rotor: 232, ring2: 280, brush2: 314, end: 356 }
    : { supply: 20, brush1: 58, ring1: 92, rotor: 140, ring2: 188, brush2: 222, field: 258, regulator: 308, end: 360 };
  return {
    parts: [
      { part: 'regulator', kind: 'regulator', label: '', turn: 0, x: x.regulator, y: fieldY },
      { part: 'rotor', kind: 'rotor', label: '', turn: 90, x: x.rotor, y: fieldY },
      { part: 'rings', kind: 'rings', label: '', turn: 0, x: x.ring2, y: fieldY },
      { part: 'rings', kind: 'rings', label: '', turn: 0, x: x.ring1, y: fieldY },
      { part: 'brushes', kind: 'brush', label: '', turn: 0, x: x.brush1, y: fieldY },
      { part: 'brushes', kind: 'brush', label: '', turn: 0, x: x.brush2, y: fieldY },
    ],
    wires: [`M${x.supply} ${fieldY}H${x.end}V${caseY}H340`, ...feedWire(machine)],
    nodes: {
      field: { x: x.field, y: fieldY },
      'ring-1': { x: x.ring1, y: fieldY },
      'ring-2': { x: x.ring2, y: fieldY },
      'holder-1': { x: x.brush1, y: fieldY - 14 },
      'holder-2': { x: x.brush2, y: fieldY - 14 },
    },
  };
}

/** From the exciter rail, or the output post, round the edge to the field's supply. */
const feedWire = (machine: ClawPole): string[] =>
  machine.exciterDiodes ? [`M404 ${exciterY}H424V316H20V${fieldY}`] : [`M418 ${outputY}H424V316H20V${fieldY}`];
