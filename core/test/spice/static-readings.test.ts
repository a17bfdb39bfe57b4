import { expect } from 'chai';
import { Circuit, type Edit, networkBetween } from '../../src/circuit/index.ts';
import {
  benchSupply,
  insulationTester,
  measure,
  multimeterById,
  seriesOhms,
  type Setup,
} from '../../src/instruments/index.ts';
import {
  type Assembly,
  type ClawPole,
  clawPoleBuilds,
  clawPoleGeneric,
  clawPoleNetwork,
  families,
} from '../../src/machines/index.ts';
import { sourceLines } from './deck.ts';
import { runSpice } from './run.ts';

const meter = multimeterById('workshop');
const machines: Record<string, ClawPole> = {
  'star, ground side': { ...clawPoleGeneric(12, 90), connection: 'star', diodeKind: 'silicon', statorPairOhms: 0.1 },
  'delta, supply side, low-loss': {
    ...clawPoleGeneric(24, 120),
    connection: 'delta',
    diodeKind: 'low-loss',
    regulatorSide: 'supply',
  },
  'star, eight diodes, no exciter diodes': {
    ...clawPoleGeneric(12, 120),
    connection: 'star',
    diodeKind: 'silicon',
    diodes: 8,
    exciterDiodes: false,
  },
};
const faults: readonly (readonly [string, number])[] = [
  ['diode-open:A+', 1],
  ['exciter-open:A', 1],
  ['diode-shorted:B-', 0.02],
  ['diode-leaky:C+', 300],
  ['stator-open:A', 1],
  ['stator-core', 30],
  ['output-leak', 1000],
  ['rotor-turns', 0.2],
  ['rings-dirty', 1.5],
];
const fed = (plus: string, minus: string, ohms: number): Setup => ({
  function: 'volts',
  red: plus,
  black: minus,
  feed: { plus, minus, seriesOhms: ohms },
});
const setups: readonly (readonly [Assembly, Setup])[] = [
  ['closed', { function: 'diode', red: 'case', black: 'output' }],
  ['closed', { function: 'diode', red: 'output', black: 'case' }],
  ['opened', { function: 'diode', red: 'leg:A', black: 'output' }],
  ['opened', fed('leg:A', 'output', seriesOhms.fiveAmps)],
  ['opened', fed('leg:A', 'exciter', seriesOhms.smallDiode)],
  ['unsoldered', { function: 'diode', red: 'case', black: 'leg:B' }],
  ['unsoldered', { function: 'insulation', red: 'lead:A', black: 'case' }],
];

function editsOf(machine: ClawPole, id: string, severity: number): readonly Edit[] {
  const fault = families['claw-pole'].faults(machine).find((f) => f.id === id);
  if (!fault) throw new RangeError(`no fault “${id}” on this machine`);
  return fault.edits(severity);
}

/** The setups whose places the machine has. */
const setupsOf = ({ exciterDiodes }: ClawPole) =>
  setups.filter(([, { black }]) => exciterDiodes || black !== 'exciter');

/** Volts at the instrument's terminals, by our solver on the whole network. */
function ours(machine: ClawPole, assembly: Assembly, setup: Setup, celsius: number, edits: readonly Edit[]): number {
  const circuit = new Circuit(clawPoleNetwork(machine, clawPoleBuilds(machine)[0]!, assembly), celsius);
  const { point } = measure(circuit, circuit.withEdits(edits), setup, meter);
  return point.nodeVolts[circuit.node(setup.red)]! - point.nodeVolts[circuit.node(setup.black)]!;
}

function spice(machine: ClawPole, assembly: Assembly, setup: Setup, celsius: number, edits: readonly Edit[]): number {
  const { red, black } = setup;
  const sources = {
    diode: sourceLines(red, black, meter.diode.sourceVolts, meter.diode.sourceOhms + meter.leadOhms),
    volts: [
      ...(setup.feed ? sourceLines(red, black, benchSupply.volts, setup.feed.seriesOhms) : []),
      `Rmeter ${red === 'case' ? '0' : red.replaceAll(/[-:]/g, '_')} ${black === 'case' ? '0' : black.replaceAll(/[-:]/g, '_')} ${meter.voltsInputOhms}`,
    ],
    insulation: sourceLines(red, black, insulationTester.sourceVolts, insulationTester.sourceOhms),
  }[setup.function as 'diode' | 'volts' | 'insulation'];
  const network = clawPoleNetwork(machine, clawPoleBuilds(machine)[0]!, assembly);
  return runSpice({ network, celsius, edits, sources, ask: [[red, black]] })[0]!;
}

describe('static readings against ngspice', () => {
  for (const [name, machine] of Object.entries(machines)) {
    for (const celsius of [-10, 25, 90]) {
      it(`${name}, sound, ${celsius} °C: within 1 mV or 0.1 %`, () => {
        for (const [assembly, setup] of setupsOf(machine)) {
          const expected = spice(machine, assembly, setup, celsius, []);
          const allowed = Math.max(1e-3, 1e-3 * Math.abs(expected));
          expect(ours(machine, assembly, setup, celsius, []), `${assembly} ${JSON.stringify(setup)}`).closeTo(
            expected,
            allowed,
          );
        }
      });
    }
    for (const [id, severity] of faults.filter(([id]) => machine.exciterDiodes || !id.startsWith('exciter'))) {
      it(`${name}, ${id}: within 1 mV or 0.1 %`, () => {
        const edits = editsOf(machine, id, severity);
        for (const [assembly, setup] of setupsOf(machine)) {
          const expected = spice(machine, assembly, setup, 25, edits);
          const allowed = Math.max(1e-3, 1e-3 * Math.abs(expected));
          expect(ours(machine, assembly, setup, 25, edits), `${assembly} ${JSON.stringify(setup)}`).closeTo(
            expected,
            allowed,
          );
        }
      });
    }
  }

  it('tells the facts of the whole bridge as ngspice has them: a short halves it, an open diode hardly moves it', () => {
    const machine = machines['star, ground side']!;
    const setup: Setup = { function: 'diode', red: 'case', black: 'output' };
    const read = (id: string | undefined, severity = 1) =>
      [ours, spice].map((by) => by(machine, 'closed', setup, 25, id ? editsOf(machine, id, severity) : []));
    const [sound, soundSpice] = read(undefined) as [number, number];
    const [open, openSpice] = read('diode-open:A+') as [number, number];
    const [shorted, shortedSpice] = read('diode-shorted:A+', 0.3) as [number, number];
    expect(open - sound).closeTo(openSpice - soundSpice, 1e-4);
    expect(shorted / sound).closeTo(shortedSpice / soundSpice, 1e-3);
    expect(shorted / sound).closeTo(0.5, 0.05);
    expect(open - sound).within(0.005, 0.03);
  });

  it('reads ohms as ngspice does, range by range', () => {
    const machine = machines['star, ground side']!;
    const cases: readonly (readonly [Assembly, string, string, readonly Edit[]])[] = [
      ['closed', 'output', 'case', []],
      ['closed', 'output', 'case', editsOf(machine, 'diode-shorted:A+', 0.3)],
      ['opened', 'output', 'leg:A', editsOf(machine, 'diode-leaky:A+', 2e4)],
      ['opened', 'lead:A', 'lead:B', []],
      ['unsoldered', 'ring-1', 'ring-2', []],
    ];
    for (const [assembly, red, black, edits] of cases) {
      const network = clawPoleNetwork(machine, clawPoleBuilds(machine)[0]!, assembly);
      const circuit = new Circuit(networkBetween(network, [[red, black]]), 25);
      const { value, range } = measure(circuit, circuit.withEdits(edits), { function: 'ohms', red, black }, meter);
      const used = meter.ohms.find((r) => r === range)!;
      const sources = sourceLines(red, black, used.sourceVolts, used.sourceOhms + meter.leadOhms);
      const volts = runSpice({ network, celsius: 25, edits, sources, ask: [[red, black]] })[0]!;
      const amps = (used.sourceVolts - volts) / (used.sourceOhms + meter.leadOhms);
      expect(value - meter.leadOhms, `${assembly} ${red} ${black}`).closeTo(volts / amps, (1e-3 * volts) / amps + 1e-4);
    }
  });
});
