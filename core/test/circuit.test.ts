import { expect } from 'chai';
import fc from 'fast-check';
import { Circuit, copperOhms, type Network, networkBetween, type Resistor } from '../src/circuit/index.ts';
import { measure, multimeterById } from '../src/instruments/index.ts';
import { clawPoleBuilds, clawPoleGeneric, clawPoleNetwork } from '../src/machines/index.ts';

const meter = multimeterById('workshop');
const ohm = (name: string, a: string, b: string, ohms: number): Resistor => ({ name, a, b, ohms });
const readOhms = (network: Network, red: string, black: string): number => {
  const circuit = new Circuit(network, 20);
  return measure(circuit, circuit.sound, { function: 'ohms', red, black }, meter).value - meter.leadOhms;
};

describe('circuit: resistances', () => {
  it('IEC 60028: copper changes by 0.00393 of its value at 20 °C per kelvin', () => {
    expect(copperOhms(1, 21) - 1).closeTo(0.00393, 1e-12);
    // The shop's form of the same, R20 = R·(234.5 + 20)/(234.5 + T): IEC 60028's inferred zero at −234.5 °C.
    for (const celsius of [-10, 60, 95]) {
      expect(copperOhms(3, celsius)).closeTo((3 * (234.5 + celsius)) / (234.5 + 20), 3 * 1e-4 * Math.abs(celsius - 20));
    }
  });
  it('a balanced bridge reads as if its middle were not there (Wheatstone)', () => {
    const arms = [ohm('a', 'p', 'x', 1), ohm('b', 'x', 'q', 2), ohm('c', 'p', 'y', 10), ohm('d', 'y', 'q', 20)];
    const without = readOhms({ resistors: arms, junctions: [] }, 'p', 'q');
    const withMiddle = readOhms({ resistors: [...arms, ohm('m', 'x', 'y', 5)], junctions: [] }, 'p', 'q');
    expect(without).closeTo((3 * 30) / 33, 1e-9);
    expect(withMiddle).closeTo(without, 1e-9);
  });
  it('a joint of 1 mΩ and a leak of 100 GΩ live side by side', () => {
    const network = { resistors: [ohm('joint', 'p', 'x', 1e-3), ohm('leak', 'x', 'q', 1e11)], junctions: [] };
    const circuit = new Circuit(network, 20);
    const source = { plus: circuit.node('p'), minus: circuit.node('q'), volts: 1, ohms: 1e9 };
    const { nodeVolts } = circuit.operatingPoint(circuit.sound, [source]);
    expect(nodeVolts[source.plus]! - nodeVolts[source.minus]!).closeTo(100 / 101, 1e-12);
  });
  it('an open winding in delta reads 3 : 1.5 : 1.5 of a sound pair', () => {
    const machine = { ...clawPoleGeneric(12, 90), connection: 'delta' as const, diodeKind: 'silicon' as const };
    const circuit = new Circuit(clawPoleNetwork(machine, clawPoleBuilds(machine)[0]!, 'unsoldered'), 20);
    const open = circuit.withEdits([{ element: 'winding:A', set: 1e9 }]);
    const pair = (red: string, black: string) => {
      const setup = { function: 'ohms', red, black } as const;
      const [faulty, sound] = [open, circuit.sound].map(
        (v) => measure(circuit, v, setup, meter).value - meter.leadOhms,
      );
      return faulty! / sound!;
    };
    // Winding A lies between leads B and C.
    expect(
      [pair('lead:B', 'lead:C'), pair('lead:A', 'lead:B'), pair('lead:C', 'lead:A')].map((r) => r.toFixed(3)),
    ).deep.equal(['3.000', '1.500', '1.500']);
  });
  it('names what it lacks when asked for a node it does not have', () => {
    const circuit = new Circuit({ resistors: [ohm('a', 'p', 'q', 1)], junctions: [] }, 20);
    expect(() => circuit.node('nowhere')).throw(/nowhere.*p, q/);
  });
});

describe('circuit: what a measurement can feel', () => {
  it('leaves out what hangs on by one end', () => {
    const network = {
      resistors: [
        ohm('a', 'p', 'q', 1),
        ohm('dangling', 'q', 'far', 1),
        ohm('loop', 'far', 'far-2', 1),
        ohm('back', 'far-2', 'far', 1),
      ],
      junctions: [],
    };
    expect(networkBetween(network, [['p', 'q']]).resistors.map((r) => r.name)).deep.equal(['a']);
  });
  it('cutting changes no reading: random resistor networks, every pair of nodes', () => {
    const edge = fc.tuple(
      fc.integer({ min: 0, max: 5 }),
      fc.integer({ min: 0, max: 5 }),
      fc.integer({ min: 1, max: 1000 }),
    );
    fc.assert(
      fc.property(fc.array(edge, { minLength: 5, maxLength: 12 }), (edges) => {
        // A chain joins all six nodes; the rest is chance.
        const chain = [0, 1, 2, 3, 4].map((n) => ohm(`c${n}`, `n${n}`, `n${n + 1}`, 50 + n));
        const extra = edges.filter(([a, b]) => a !== b).map(([a, b, r], i) => ohm(`e${i}`, `n${a}`, `n${b}`, r));
        const network = { resistors: [...chain, ...extra], junctions: [] };
        const cut = networkBetween(network, [['n1', 'n4']]);
        expect(readOhms(cut, 'n1', 'n4')).closeTo(readOhms(network, 'n1', 'n4'), 1e-6);
      }),
    );
  });
  it('cutting changes no reading of the unit: whole against cut, in every state', () => {
    const machine = { ...clawPoleGeneric(12, 90), connection: 'star' as const, diodeKind: 'silicon' as const };
    const build = clawPoleBuilds(machine)[0]!;
    for (const [assembly, red, black, kept] of [
      ['closed', 'exciter', 'field', 25],
      ['opened', 'output', 'leg:A', 19],
      ['unsoldered', 'ring-1', 'ring-2', 1],
    ] as const) {
      const whole = clawPoleNetwork(machine, build, assembly);
      const cut = networkBetween(whole, [[red, black]]);
      expect(cut.resistors.length, assembly).equal(kept);
      expect(readOhms(cut, red, black)).closeTo(readOhms(whole, red, black), 1e-6 * readOhms(whole, red, black));
    }
  });
});

describe('circuit: junctions that are not as their kind', () => {
  const machine = { ...clawPoleGeneric(24, 80), connection: 'star' as const, diodeKind: 'low-loss' as const };
  const build = clawPoleBuilds(machine)[0]!;
  const network = clawPoleNetwork(machine, build, 'opened');
  const held = { fullScale: 1e6, freeBelow: 5e3 };
  const setups = {
    forward: { function: 'diode', red: 'leg:A', black: 'output' },
    reversed: { function: 'ohms', red: 'output', black: 'leg:A', held },
  } as const;
  for (const [name, setup] of Object.entries(setups)) {
    it(`${name}: the slope over the batch’s forward volts is what swaying it shows`, () => {
      const circuit = new Circuit(networkBetween(network, [[setup.red, setup.black]]), 20);
      const batch = circuit.spreads.find((spread) => spread.name === 'junction')!;
      const read = (by: number) => measure(circuit, circuit.swayed(circuit.sound, batch, by), setup, meter).value;
      const shown = measure(circuit, circuit.sound, setup, meter);
      const response = circuit.response(circuit.node(setup.red), circuit.node(setup.black));
      const moves = circuit.sensitivity(circuit.sound, shown.point, response);
      const slope = shown.perVolt * batch.junctions.reduce((sum, j) => sum + moves.perShiftVolt[j]!, 0);
      const differences = (read(1e-4) - read(-1e-4)) / 2e-4;
      expect(slope).closeTo(differences, 1e-3 * Math.abs(differences));
      // Less saturation current: more volts forward, and more ohms reversed.
      expect(slope).greaterThan(0);
    });
  }
  it('comes to rest where a lead hangs on leaks alone beside amperes: an open phase while 5 A flow through the others', () => {
    const feed = { plus: 'lead:B', minus: 'lead:C', seriesOhms: 2.4 };
    const circuit = new Circuit(networkBetween(network, [['lead:B', 'lead:C']]), 20);
    const open = circuit.withEdits([{ element: 'winding:A', set: 1e9 }]);
    const setup = { function: 'drop', red: 'lead:B', black: 'lead:C', feed } as const;
    const kinds = circuit.kinds.filter(({ junctions }) => junctions.length > 0);
    for (let i = 0; i < 400; i++) {
      const values = kinds.reduce((v, kind, k) => circuit.swayed(v, kind, 0.06 * Math.sin(i * (k + 1.37))), open);
      const { value } = measure(circuit, values, setup, meter);
      // Two windings of 0.15 Ω in the supply's 12.6 V behind 2.4 Ω, as far as the diodes beside them leave it alone.
      expect(value).within(0.7, 1.41);
    }
  });
});
