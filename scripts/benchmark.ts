// bin/refectum benchmark: what the core costs, beside ngspice in the same run. Ratios travel between machines; times don't.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type TapeReading, unitSession } from '../core/src/assess/index.ts';
import { Circuit, networkBetween } from '../core/src/circuit/index.ts';
import { measure, multimeterById, type Setup } from '../core/src/instruments/index.ts';
import {
  type ClawPole,
  clawPoleBuilds,
  clawPoleGeneric,
  clawPoleNetwork,
  type Machine,
  type Starter,
  starterGeneric,
} from '../core/src/machines/index.ts';
import { bridgeDeck } from '../core/test/spice/deck.ts';
import { runTurning } from '../core/test/spice/turning-deck.ts';
import { damped, decked, runOurs, turningUnits } from '../core/test/spice/turning-units.ts';

const known: ClawPole = { ...clawPoleGeneric(12, 90), connection: 'star', diodeKind: 'silicon' };
const meter = multimeterById('workshop');
const median = (times: readonly number[]): number => [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)]!;
const row = (what: string, value: number, unit: string, note = '') =>
  console.log(`${what.padEnd(62)} ${value.toFixed(value < 10 ? 2 : 1).padStart(9)} ${unit.padEnd(3)} ${note}`);

/** Microseconds for one static reading of the whole closed unit, faults going round so that nothing is remembered. */
function microsecondsPerReading(): number {
  const setup: Setup = { function: 'diode', red: 'case', black: 'output' };
  const build = clawPoleBuilds(known)[0]!;
  const circuit = new Circuit(networkBetween(clawPoleNetwork(known, build, 'closed'), [['case', 'output']]), 25);
  const faulty = [0.02, 0.5, 30, 300, 3e3, 3e4].flatMap((ohms) =>
    ['A+', 'B-', 'C+'].map((place) => circuit.withEdits([{ element: `leak:${place}`, set: ohms }])),
  );
  const start = measure(circuit, circuit.sound, setup, meter).point.junctionVolts;
  const once = () => {
    const began = performance.now();
    for (const values of faulty) measure(circuit, values, setup, meter, start);
    return ((performance.now() - began) * 1000) / faulty.length;
  };
  for (let i = 0; i < 200; i++) once();
  return median(Array.from({ length: 101 }, once));
}

/** Milliseconds of ngspice for the same reading: one process a reading, the way a program without its own solver would. */
function spiceMilliseconds(): number {
  const folder = mkdtempSync(join(tmpdir(), 'refectum-'));
  const file = join(folder, 'bridge.cir');
  writeFileSync(file, bridgeDeck(known, 25, meter));
  const once = () => {
    const began = performance.now();
    execFileSync('ngspice', ['-b', file], { stdio: 'pipe' });
    return performance.now() - began;
  };
  const time = median(Array.from({ length: 15 }, once));
  rmSync(folder, { recursive: true });
  return time;
}

type Script = readonly (readonly [check: string, outcome: number | 'OL'])[];
const alternatorScript: Script = [
  ['leads-null', 0.3],
  ['bridge-forward', 0.935],
  ['bridge-reverse', 'OL'],
  ['bridge-reverse-ohms', 5.2e6],
  ['field-ohms', 3.5],
  ['ring-ring', 3.3],
  ['joined-forward:A+', 0.477],
  ['current-drop:A+', 0.861],
  ['current-drop:B+', 0.859],
  ['current-drop:C+', 0.862],
  ['stator-pair:AB', 0.4],
];

/** What a starter shows at rest and on the bench battery that is as its plate has it. */
const starterScript = (starter: Starter): Script => [
  ['main-to-case', 'OL'],
  ['main-to-motor', 'OL'],
  ['battery-rested', 12.68],
  ['battery-loaded', 10.9],
  ['no-load-volts', starter.noLoadVolts],
  ['no-load-amps', starter.noLoadAmps],
  ['no-load-rpm', starter.noLoadRpm],
  ['contact-drop', 0.05],
];

/** From each reading to what is believed, and on to what to do: cold, and prepared as the bench does while idle. */
function readingMilliseconds(
  machine: Machine,
  script: Script,
  assembly: string,
  prepared: boolean,
): { diagnosis: number; outlook: number }[] {
  const session = unitSession(machine, 'none', [meter]);
  const situation = { assembly, meter: meter.id, celsius: 20, prices: { items: {} } };
  const tape: TapeReading[] = [];
  session.assess({ ...situation, readings: tape });
  return script.map(([check, value]) => {
    if (prepared) for (const _ of session.prepare({ ...situation, readings: tape }, [check]));
    const outcome = value === 'OL' ? ({ kind: 'over-range' } as const) : ({ kind: 'value', value } as const);
    tape.push({ id: check, check, outcome, meter: meter.id, celsius: 20 });
    const began = performance.now();
    session.diagnose({ ...situation, readings: tape });
    const diagnosis = performance.now() - began;
    session.outlook({ ...situation, readings: tape });
    return { diagnosis, outlook: performance.now() - began };
  });
}

/** From each point of an output curve to what is believed, nothing prepared: every fault is run at its speed. */
function pointMilliseconds(machine: Machine): number[] {
  const session = unitSession(machine, 'none', [meter]);
  const points = [1800, 2500, 4500, 6000].map((rpm, n) => ({ rpm, volts: 13.5, amps: [22, 48, 77, 86][n]! }));
  session.beliefAfter({ readings: [] });
  return points.map((_, n) => {
    const began = performance.now();
    session.beliefAfter({ readings: [], output: points.slice(0, n + 1) });
    return performance.now() - began;
  });
}

const { faults, particles, builds } = unitSession(known, 'no-charge', [meter]).opened;
const unknown = clawPoleGeneric(12, 90);
const starter = starterGeneric(12, 1.4, 'direct');
console.log(`${faults.length} faults, ${particles.length} hypotheses with their severities, ${builds.length} build\n`);
const reading = microsecondsPerReading();
const spice = spiceMilliseconds();
row('one static reading of the closed unit', reading, 'µs', 'target under 50');
row('the same by ngspice, one process', spice, 'ms', `ratio ${((spice * 1000) / reading).toFixed(0)}`);
for (const [name, machine, script, assembly] of [
  ['build known', known, alternatorScript, 'opened'],
  [
    `build unknown (${unitSession(unknown, 'no-charge', [meter]).opened.builds.length} builds)`,
    unknown,
    alternatorScript,
    'opened',
  ],
  ['starter', starter, starterScript(starter), 'clamped'],
] as const) {
  for (let i = 0; i < 2; i++) readingMilliseconds(machine, script, assembly, true);
  const warm = readingMilliseconds(machine, script, assembly, true);
  const cold = readingMilliseconds(machine, script, assembly, false);
  for (const half of ['diagnosis', 'outlook'] as const) {
    const times = warm.map((time) => time[half]);
    const what = { diagnosis: 'reading to suspects and words', outlook: 'reading to next check and verdict' }[half];
    row(`${name}: ${what}; median`, median(times), 'ms', `ratio to ngspice ${(median(times) / spice).toFixed(1)}`);
    row(`${name}: the slowest of ${script.length}`, Math.max(...times), 'ms');
  }
  row(`${name}: the slowest, nothing prepared`, Math.max(...cold.map((time) => time.outlook)), 'ms');
}

console.log(
  '\nrunning, one steady period; speed and accuracy at one and the same setting, ngspice at a thousandth of a period',
);
let [worstMean, worstRipple] = [0, 0];
const ourTimes: number[] = [];
const spiceTimes: number[] = [];
for (const unit of Object.values(turningUnits))
  for (const rpm of [1800, 3000, 6000]) {
    const theirs = runTurning(decked(rpm, unit[1], damped));
    runOurs(rpm, unit, damped);
    const ours = runOurs(rpm, unit, damped);
    worstMean = Math.max(worstMean, Math.abs(ours.mean / theirs.mean - 1));
    worstRipple = Math.max(worstRipple, Math.abs(ours.ripple / theirs.ripple - 1));
    ourTimes.push(ours.milliseconds);
    spiceTimes.push(theirs.milliseconds);
  }
row(`a suspect’s steady trace; median of ${ourTimes.length}`, median(ourTimes), 'ms', 'target under 20');
row('the slowest', Math.max(...ourTimes), 'ms');
row(
  'the same by ngspice, one process; median',
  median(spiceTimes),
  'ms',
  `ratio ${(median(spiceTimes) / median(ourTimes)).toFixed(0)}`,
);
row('a point of the output to suspects, build known; median', median(pointMilliseconds(known)), 'ms');
row('the same, build unknown', median(pointMilliseconds(unknown)), 'ms');
row('mean amps off ngspice by at most', 100 * worstMean, '%', 'target 1');
row('ripple rms off ngspice by at most', 100 * worstRipple, '%', 'target 3');
