import { expect } from 'chai';
import { Circuit, networkBetween } from '../../src/circuit/index.ts';
import { measure, multimeterById } from '../../src/instruments/index.ts';
import { clawPoleGeneric } from '../../src/machines/index.ts';
import { type Scene, starterAtWork, vehicleGeneric, vehicleNetwork, vehicleSubject } from '../../src/vehicle/index.ts';
import { runSpice } from './run.ts';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const meter = multimeterById('bench');
const unit = clawPoleGeneric(12, 90);

describe('the vehicle against ngspice: every live reading of every fault', () => {
  for (const [volts, celsius] of [
    [12, 20],
    [12, -10],
    [24, 30],
  ] as const) {
    const vehicle = vehicleGeneric(volts, 90);
    const { subject } = vehicleSubject(vehicle, unit, 'no-charge');
    const live = subject.checks.filter(({ method }) => method.kind === 'meter');
    const scenes = [...new Set(live.map((check) => check.assembly))] as Scene[];
    for (const scene of scenes) {
      it(`${volts} V at ${celsius} °C, ${scene}: within 1 mV or 0.1 %`, () => {
        const network = vehicleNetwork(vehicle, scene, starterAtWork(vehicle, unit));
        const checks = live.filter((check) => check.assembly === scene);
        const setups = checks.map(({ method }) => (method as { setup: Parameters<typeof measure>[2] }).setup);
        const touched = subject.faults.filter((f) =>
          new Circuit(network, celsius).touchedBy(f.edits(f.severity.grades[0]!)),
        );
        for (const fault of [undefined, ...touched]) {
          const { grades } = fault?.severity ?? { grades: [1] };
          const edits = fault?.edits(grades[Math.floor(grades.length / 2)]!) ?? [];
          // The voltmeter's own 10 MΩ draws nothing that shows here.
          const spice = runSpice({ network, celsius, edits, sources: [], ask: setups.map((s) => [s.red, s.black]) });
          setups.forEach((setup, i) => {
            const circuit = new Circuit(networkBetween(network, [[setup.red, setup.black]]), celsius);
            const shown = measure(circuit, circuit.withEdits(edits), setup, meter).value;
            const expected = setup.shuntOhms ? spice[i]! / setup.shuntOhms : spice[i]!;
            const bound = Math.max(setup.shuntOhms ? 0.01 : 0.001, 0.001 * Math.abs(expected));
            expect(shown, `${checks[i]!.id}, ${fault?.id ?? 'sound'}`).closeTo(expected, bound);
          });
        }
      });
    }
  }
});

/** Runs a deck written by hand and answers the named voltages. */
function byHand(lines: readonly string[], ask: readonly string[]): number[] {
  const folder = mkdtempSync(join(tmpdir(), 'refectum-hand-'));
  const file = join(folder, 'vehicle.cir');
  const prints = ask.map((what) => `print ${what}`);
  writeFileSync(file, ['* by hand', ...lines, '.control', 'op', ...prints, 'quit 0', '.endc', '.end', ''].join('\n'));
  const printed = execFileSync('ngspice', ['-b', file], { encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] });
  rmSync(folder, { recursive: true });
  return [...printed.matchAll(/^\S+ = (\S+)$/gm)].map((match) => Number(match[1]));
}

/**
 * Another hand's idea of the machine: a current that a regulator cuts back over a tenth of a volt round its set-point.
 * It shares none of our limiter; what the two make of drops, sag and runaway has to agree to that tenth.
 */
const handDeck = ({ setpoint = 14.2, cable = 0.005, ground = 0.0015, amps = 81 }) => [
  `Bmachine 0 post I=${amps}*0.5*(1-tanh((V(post)-${setpoint})/0.05))`,
  `.nodeset v(post)=${setpoint}`,
  `Rcable post link ${cable}`,
  'Rlink link bpos 1m',
  'Rbattery plates bpos 0.058',
  'Vcells plates bneg 13.3',
  'Rclamp bneg star 0.2m',
  `Rground star 0 ${ground}`,
  'Rloads bpos star 0.52',
  'Rdrain bpos star 500',
];

describe('the vehicle against decks written by hand', () => {
  const vehicle = vehicleGeneric(12, 90);
  const { subject } = vehicleSubject(vehicle, unit, 'no-charge');
  const read = (checkId: string, faultId?: string, severity = 1): number => {
    const check = subject.checks.find(({ id }) => id === checkId)!;
    const { setup } = check.method as { setup: Parameters<typeof measure>[2] };
    const starter = starterAtWork(vehicle, unit);
    const circuit = new Circuit(vehicleNetwork(vehicle, check.assembly as Scene, starter), 20);
    const edits = faultId ? subject.faults.find(({ id }) => id === faultId)!.edits(severity) : [];
    return measure(circuit, circuit.withEdits(edits), setup, meter).value;
  };
  const running: readonly (readonly [string, Parameters<typeof handDeck>[0], string?, number?])[] = [
    ['sound', {}],
    ['0.15 Ω more in the charge cable', { cable: 0.155 }, 'charge-cable', 0.15],
    ['0.15 Ω more in the ground path', { ground: 0.1515 }, 'ground-path', 0.15],
    ['sense 1.6 V too low: runs away', { setpoint: 15.8 }, 'sense-bad', 1.6],
    ['belt slips to a third', { amps: 27 }, 'belt-slip', 3],
    ['no excitation', { amps: 0 }, 'excitation-lost'],
  ];
  for (const [what, values, fault, severity] of running) {
    it(`${what}: battery, post and both drops within 0.1 V`, () => {
      const spice = byHand(handDeck(values), ['v(bpos)-v(bneg)', 'v(post)', 'v(post)-v(bpos)', 'v(bneg)']);
      const ours = ['battery-raised', 'post-raised', 'drop-charge', 'drop-ground'].map((id) =>
        read(id, fault, severity),
      );
      expect(spice.length).equal(4);
      ours.forEach((volts, i) => expect(volts, `${i}`).closeTo(spice[i]!, 0.1));
    });
  }
  it('cranking sags by battery and engine, a worn battery by more until the starter stands: within 20 mV and 1 A', () => {
    const { amps: asked, contactOhms, ohms } = starterAtWork(vehicle, unit);
    // By another hand: an engine that asks its amps, less over the last tenth of a volt before it stands.
    const cranking = (battery: number, times: number, joint = 0) =>
      byHand(
        [
          `Rbattery plates bpos ${battery}`,
          'Vcells plates bneg 12.6',
          'Rclamp bneg star 0.2m',
          'Rground star 0 1.5m',
          'Rcable bpos solenoid 1.2m',
          `Rcontacts solenoid motor ${contactOhms + joint}`,
          `Rmotor motor armature ${ohms}`,
          `Bengine armature 0 I=${times * asked}*tanh(max(v(armature),0)/0.02)`,
          'Rstands armature 0 1k',
        ],
        ['v(bpos)-v(bneg)', '(v(star)-v(bneg))/0.0002'],
      );
    for (const [deck, fault, severity] of [
      [cranking(0.008, 1), undefined, 1],
      [cranking(0.032, 1), 'battery-worn', 4],
      [cranking(0.008, 0.4), 'starter-drive', 1],
      [cranking(0.008, 2), 'engine-tight', 2],
      [cranking(0.008, 1, 0.2), 'contacts-burnt', 0.2],
    ] as const) {
      const [volts, amps] = deck;
      expect(read('cranking-volts', fault, severity), fault).closeTo(volts!, 0.02);
      expect(read('cranking-amps', fault, severity), fault).closeTo(amps!, 1);
    }
  });
});
