import type { Edit, JunctionLaw, Network } from '../../src/circuit/index.ts';
import type { Multimeter } from '../../src/instruments/index.ts';
import { type ClawPole, clawPoleBuilds, clawPoleNetwork } from '../../src/machines/index.ts';

/** A network written as a SPICE deck by its own rules, for ngspice to work out on its own. */
export interface Deck {
  readonly network: Network;
  readonly celsius: number;
  readonly edits?: readonly Edit[];
  /** Lines of sources and instruments. */
  readonly sources: readonly string[];
  /** What is asked: voltages between nodes. */
  readonly ask: readonly (readonly [string, string])[];
  /** ngspice's relative tolerance; the tighter, the likelier that it finds no operating point at all. */
  readonly tolerance?: number;
}

const node = (name: string): string =>
  name === 'case' ? '0' : name.replaceAll(/[-:+]/g, (sign) => (sign === '+' ? 'p' : '_'));
const element = (name: string): string =>
  name.replaceAll(/[:+-]/g, (sign) => ({ ':': '_', '+': 'p', '-': 'n' })[sign]!);

/** Copper by SPICE's own temperature coefficient, not by ours. */
const copperModel = '.model copper r (tc1=0.00393 tnom=20)';

function diodeModel(name: string, law: JunctionLaw): string {
  const { saturationAmps, ideality, seriesOhms } = law;
  return `.model ${name} d (is=${saturationAmps} n=${ideality} rs=${seriesOhms} eg=1.11 xti=3 tnom=25)`;
}

export function deckText({ network, celsius, edits = [], sources, ask, tolerance = 1e-6 }: Deck): string {
  const lines = [
    '* a unit on the bench, or a vehicle',
    `.options temp=${celsius} tnom=20 gmin=1e-12 reltol=${tolerance} abstol=1e-15 vntol=1e-8`,
    copperModel,
  ];
  for (const r of network.resistors) {
    const own = edits.filter((edit) => edit.element === r.name);
    const set = own.find((edit) => 'set' in edit);
    const scale = own.reduce((k, edit) => ('scale' in edit ? k * edit.scale : k), 1);
    const added = own.reduce((sum, edit) => ('add' in edit ? sum + edit.add : sum), 0);
    const ends = `${node(r.a)} ${node(r.b)}`;
    if (set && 'set' in set) lines.push(`R${element(r.name)} ${ends} ${set.set}`);
    else if (added) {
      lines.push(`R${element(r.name)} ${node(r.a)} mid_${element(r.name)} ${r.copper ? 'copper ' : ''}${r.ohms}`);
      lines.push(`Radd${element(r.name)} mid_${element(r.name)} ${node(r.b)} ${added}`);
    } else {
      const coefficient = r.perKelvin ? ` tc1=${r.perKelvin}` : '';
      lines.push(`R${element(r.name)} ${ends} ${r.copper ? 'copper ' : ''}${r.ohms * scale}${coefficient}`);
    }
  }
  const laws = [...new Set(network.junctions.map((j) => j.law))];
  laws.forEach((law, i) => lines.push(diodeModel(`d${i}`, law)));
  for (const j of network.junctions) {
    if (edits.some((edit) => edit.element === j.name && 'open' in edit)) continue;
    lines.push(`D${element(j.name)} ${node(j.anode)} ${node(j.cathode)} d${laws.indexOf(j.law)}`);
  }
  for (const e of network.emfs ?? []) {
    const volts = edits.filter((edit) => edit.element === e.name).reduce(editedVolts, e.volts);
    lines.push(`V${element(e.name)} emf_${element(e.name)} ${node(e.minus)} ${volts}`);
    lines.push(`Remf${element(e.name)} emf_${element(e.name)} ${node(e.plus)} ${e.ohms}`);
  }
  const wanted = ask.map(([a, b]) => `print v(${node(a)})-v(${node(b)})`);
  // Node 0 has no vector of its own.
  const asked = wanted.map((line) => line.replace('v(0)-', '0-').replace('-v(0)', '-0'));
  return [...lines, ...sources, '.control', 'set numdgt=12', 'op', ...asked, 'quit 0', '.endc', '.end', ''].join('\n');
}

function editedVolts(volts: number, edit: Edit): number {
  if ('add' in edit) return volts + edit.add;
  if ('scale' in edit) return volts * edit.scale;
  return 'set' in edit ? edit.set : volts;
}

/** A source with its resistance between two nodes, as lines of a deck. */
export const sourceLines = (plus: string, minus: string, volts: number, ohms: number): string[] => [
  `Vsource source_plus ${node(minus)} ${volts}`,
  `Rsource source_plus ${node(plus)} ${ohms}`,
];

/** The whole closed unit under a diode test from case to output: what the benchmark times. */
export function bridgeDeck(machine: ClawPole, celsius: number, meter: Multimeter): string {
  return deckText({
    network: clawPoleNetwork(machine, clawPoleBuilds(machine)[0]!, 'closed'),
    celsius,
    sources: sourceLines('case', 'output', meter.diode.sourceVolts, meter.diode.sourceOhms + meter.leadOhms),
    ask: [['case', 'output']],
  });
}
