import type { RunSetup } from '../../checks/index.ts';
import { heldAt, type Off, type Ran, type Runner, type RunningFault, type Stand } from '../family.ts';
import type { ClawPoleBuild } from './builds.ts';
import { type ClawPole, phases } from './parameters.ts';
import { brushesOff, clawPoleRun, swayed } from './running.ts';

/**
 * Coarser steps than a trace needs, and a prime number, so that a mean moves smoothly: within 1 % of the mean, which is
 * known worse than that.
 */
const steps = 97;
/** Relative standard uncertainty of an output current foreseen from the plate's figures, and of a stand's speed [from memory]. */
const modelShare = 0.03;
const speedShare = 0.01;
/** Of the tap's share of the output. */
const tapSigma = 0.01;
/** Diode volts of a hot rectifier; windings as warm as a few minutes at full output make them [from memory]. */
const warm = { windings: 70, diodes: 70 } as const;
const kelvin = 15;
/** How far the windings may be from the temperature told at a point, and from the usual where none was [our estimate]. */
const toldKelvin = 5;
const untoldKelvin = 20;

/** What moves a sound machine's output, and by how much it is tried. */
const trials: Readonly<Record<string, number>> = {
  flux: 0.05,
  inductance: 0.05,
  stator: 0.1,
  rotor: 0.05,
  brushes: 0.3,
};

/**
 * Runs one claw-pole alternator, field full past its regulator or, for a point of its output, by it. Every place that
 * equal phases turn into another is one run.
 */
export function clawPoleRunner(machine: ClawPole): Runner {
  const known = new Map<string, number>();
  const shown = (build: ClawPoleBuild, setup: RunSetup, faults: readonly RunningFault[], off: Off = {}): number => {
    const key = JSON.stringify([build.connection, build.diodeKind, setup, faults, off]);
    let value = known.get(key);
    if (value === undefined) known.set(key, (value = run(machine, build, setup, faults, off)));
    return value;
  };
  return (build, setup, faults): Ran => {
    const own = build as ClawPoleBuild;
    const alike = (fault: RunningFault) => atFirstPhase(fault, setup.shows === 'own-output');
    const value = shown(own, setup, setup.shows === 'tap' ? faults : faults.map(alike));
    if (setup.shows === 'tap') {
      // A sound tap lies in the middle whatever the field; off it, where follows from flux and reactance.
      const move = (name: string) => (shown(own, setup, faults, { [name]: trials[name]! }) - value) / trials[name]!;
      const moving = faults.length ? ['flux', 'inductance'] : [];
      const moves = Object.fromEntries(moving.map((name) => [name, move(name)]));
      return { value, moves, sigma: tapSigma * setup.held.volts! };
    }
    const sound = shown(own, setup, []);
    const share = (off: Off, by: number) => (shown(own, setup, [], off) / sound - 1) / by;
    const moves = Object.entries(trials).map(([name, by]) => [name, value * share({ [name]: by }, by)] as const);
    const perKelvin = share({ celsius: kelvin }, kelvin);
    const perSpeed = share({ rpm: speedShare }, 1);
    const sigma = Math.hypot(modelShare * value, perSpeed * value, 0.3);
    if (setup.shows === 'output')
      return { value, moves: { ...Object.fromEntries(moves), celsius: value * perKelvin }, sigma };
    // How warm a point's windings were has nothing to do with how warm the parts at rest were.
    const unsure = setup.held.celsius === undefined ? untoldKelvin : toldKelvin;
    return { value, moves: Object.fromEntries(moves), sigma: Math.hypot(sigma, value * perKelvin * unsure) };
  };
}

function run(
  machine: ClawPole,
  build: ClawPoleBuild,
  { held: { rpm, volts, celsius: told }, shows }: RunSetup,
  faults: readonly RunningFault[],
  off: Off,
): number {
  const { own, excitation } = swayed(machine, build, off);
  const { windings, diodes } = told === undefined ? warm : { windings: told, diodes: told };
  const held: Stand = {
    rpm: rpm! * (1 + (off.rpm ?? 0)),
    ...heldAt(volts!),
    celsius: { windings: windings + (off.celsius ?? 0), diodes: diodes + (off.celsius ?? 0) },
    field: shows === 'own-output' ? 'own' : 'bypassed',
  };
  const found = clawPoleRun(own, build, [...faults, ...brushesOff(off.brushes)], held, excitation, steps);
  return shows === 'tap' ? found.tap.mean : Math.max(found.amps.mean, 0);
}

/**
 * The same fault on the first phase: an output current doesn't tell phases apart, nor sides unless the field is fed by
 * exciter diodes, which have the negative side in common with the output.
 */
function atFirstPhase(fault: RunningFault, sides: boolean): RunningFault {
  const phase = fault.place.replace(/[ABC]/, phases[0]);
  const place = sides ? phase : phase.replace('-', '+');
  const moved = (element: string) => (fault.place === '' ? element : element.replace(fault.place, place));
  return { ...fault, place, edits: fault.edits.map((edit) => ({ ...edit, element: moved(edit.element) })) };
}
