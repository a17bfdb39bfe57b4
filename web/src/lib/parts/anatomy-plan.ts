import { type ClawPole, phases } from '@refectum/core/machines';

export interface Point {
  readonly x: number;
  readonly y: number;
}

/** Where a part's symbol, its mark and its touch field lie. */
export interface Placed extends Point {
  readonly part: string;
  readonly kind: 'diode' | 'exciter' | 'winding' | 'rotor' | 'brush' | 'rings' | 'regulator' | 'output' | 'gear';
  readonly label: string;
  /** Degrees clockwise from pointing up. */
  readonly turn: number;
}

/** A unit's circuit laid out for drawing: its parts, its wires and where each terminal is touched. */
export interface Plan {
  readonly parts: readonly Placed[];
  readonly wires: readonly string[];
  readonly nodes: Readonly<Record<string, Point>>;
  readonly dots: readonly Point[];
}

export const planSize = { width: 360, height: 330 };

const outputY = 34;
const caseY = 226;
const legX: Readonly<Record<string, number>> = { A: 140, B: 184, C: 228, N: 268 };
const leadY: Readonly<Record<string, number>> = { A: 104, B: 130, C: 156, N: 182 };
const exciterX: Readonly<Record<string, number>> = { A: 290, B: 316, C: 342 };
const exciterY = 60;
const fieldY = 280;

/** Lays out a claw-pole alternator as it is built. */
export function planOf(machine: ClawPole): Plan {
  const legs = [...phases, ...(machine.diodes === 8 ? ['N'] : [])];
  const stator = statorPlan(machine);
  const field = fieldPlan(machine);
  const nodes: Record<string, Point> = {
    output: { x: 352, y: outputY },
    case: { x: 40, y: caseY },
    ...stator.nodes,
    ...field.nodes,
  };
  for (const leg of legs) nodes[`leg-${leg}`] = { x: legX[leg]!, y: leadY[leg]! };
  if (machine.exciterDiodes) nodes.exciter = { x: 342, y: exciterY };
  const wires = [
    `M${legX.A} ${outputY}H352`,
    `M20 ${caseY}H300`,
    ...legs.map((leg) => `M${legX[leg]} ${outputY}V${caseY}`),
    ...stator.wires,
    ...field.wires,
  ];
  if (machine.exciterDiodes) {
    wires.push(`M${exciterX.A} ${exciterY}H342`);
    for (const phase of phases) {
      wires.push(`M${legX[phase]} ${leadY[phase]}H${exciterX[phase]}V${exciterY}`);
    }
  }
  return {
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
      { part: 'output', kind: 'output', label: '', turn: 0, x: 330, y: outputY },
      ...stator.parts,
      ...field.parts,
      { part: 'running-gear', kind: 'gear', label: '', turn: 0, x: 330, y: 204 },
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

type Part = Pick<Plan, 'parts' | 'wires' | 'nodes'>;

/** Star or delta; a star is drawn when it isn't known. */
function statorPlan(machine: ClawPole): Part {
  const wire = (leg: string, from: Point) => `M${from.x} ${from.y}V${leadY[leg]}H${legX[leg]}`;
  if (machine.connection === 'delta') {
    const corner: Record<string, Point> = { A: { x: 62, y: 74 }, B: { x: 104, y: 140 }, C: { x: 20, y: 140 } };
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
        `M62 74L104 140L20 140Z`,
        `M62 74V60H118V${leadY.A}H${legX.A}`,
        `M104 140V${leadY.B}H${legX.B}`,
        `M20 140V${leadY.C}H${legX.C}`,
      ],
      nodes: {
        'lead-A': { x: 118, y: leadY.A! },
        'lead-B': { x: 118, y: leadY.B! },
        'lead-C': { x: 118, y: leadY.C! },
      },
    };
  }
  const star = { x: 56, y: 130 };
  const tips: Record<string, Point> = { A: { x: 96, y: 84 }, B: { x: 112, y: 130 }, C: { x: 96, y: 176 } };
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
      ...(machine.diodes === 8 ? [`M${star.x} ${star.y}V196H126V${leadY.N}H${legX.N}`] : []),
    ],
    nodes: {
      ...Object.fromEntries(phases.map((phase) => [`lead-${phase}`, { x: 122, y: leadY[phase]! }])),
      star,
    },
  };
}

/** Supply, brushes, rings, rotor and regulator in one row below the case rail. */
function fieldPlan(machine: ClawPole): Part {
  const regulatorFirst = machine.regulatorSide === 'supply';
  const x = regulatorFirst
    ? { supply: 20, regulator: 62, field: 106, brush1: 132, ring1: 162, rotor: 206, ring2: 250, brush2: 280, end: 318 }
    : { supply: 20, brush1: 56, ring1: 86, rotor: 130, ring2: 174, brush2: 204, field: 236, regulator: 278, end: 330 };
  return {
    parts: [
      { part: 'regulator', kind: 'regulator', label: '', turn: 0, x: x.regulator, y: fieldY },
      { part: 'rotor', kind: 'rotor', label: '', turn: 90, x: x.rotor, y: fieldY },
      { part: 'rings', kind: 'rings', label: '', turn: 0, x: x.ring2, y: fieldY },
      { part: 'rings', kind: 'rings', label: '', turn: 0, x: x.ring1, y: fieldY },
      { part: 'brushes', kind: 'brush', label: '', turn: 0, x: x.brush1, y: fieldY },
      { part: 'brushes', kind: 'brush', label: '', turn: 0, x: x.brush2, y: fieldY },
    ],
    wires: [`M${x.supply} ${fieldY}H${x.end}V${caseY}H300`, ...feedWire(machine)],
    nodes: {
      field: { x: x.field, y: fieldY },
      'ring-1': { x: x.ring1, y: fieldY },
      'ring-2': { x: x.ring2, y: fieldY },
    },
  };
}

/** From the exciter rail, or the output post, round the edge to the field's supply. */
const feedWire = (machine: ClawPole): string[] =>
  machine.exciterDiodes ? [`M342 ${exciterY}H354V312H20V${fieldY}`] : [`M352 ${outputY}V312H20V${fieldY}`];
