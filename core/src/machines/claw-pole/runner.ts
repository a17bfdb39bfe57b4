import type { RunSetup } from '../../checks/index.ts';
import { normalCdf } from '../../numeric/index.ts';
import { timesWider } from '../build.ts';
import { heldAt, type Off, type Ran, type Runner, type RunningFault, type SettledRun, type Stand } from '../family.ts';
import { type ClawPoleBuild, clawPoleNuisances } from './builds.ts';
import { type ClawPole, phases } from './parameters.ts';
import { brushesOff, clawPoleRun, shownBy, swayed } from './running.ts';

/**
 * Coarser steps than a trace needs, and a prime number, so that a mean moves smoothly: within 1.5 % of the mean, which
 * is known worse than that.
 */
const steps = 61;
const settledShare = 4e-3;
/** Relative standard uncertainty of an output current foreseen from the plate's figures, and of a stand's speed [from memory]. */
const modelShare = 0.03;
const speedShare = 0.01;
/** Of the volts at the post, how surely those of tap and exciter terminal are foreseen. */
const voltsShare = 0.01;
/** Of how far they are moved, how much no straight line tells [counted, see the test]. */
const bentShare = 0.7;
/** Less than this, A, is no output. */
const leastOutput = 0.5;
/** Of a sound output at 3,000 rpm, its standard deviation on units as their kind is [counted, see the test]. */
const outputShare = 0.2;
/** Diode volts of a hot rectifier; windings as warm as a few minutes at full output make them [from memory]. */
const warm = { windings: 70, diodes: 70 } as const;
const kelvin = 15;
/** How far the windings may be from the temperature told at a point, and from the usual where none was [our estimate]. */
const toldKelvin = 5;
const untoldKelvin = 20;

/** A sound output below this, A, is foreseen by its plate to no share of itself; flux may be so much more [our estimate]. */
const faintAmps = 5;
const faintFlux = 0.15;

/** Poles damp what is uneven, each such fault's currents by another share; all else as they do a sound machine's. */
const uneven = /^(diode|stator)-/;

const ofWindings = /^stator-/;

/** What moves a machine's output, and by how much it is tried. */
const trials: Readonly<Record<string, number>> = {
  flux: 0.05,
  inductance: 0.05,
  damping: 0.2,
  stator: 0.1,
  rotor: 0.05,
  brushes: 0.3,
};

/**
 * What moves its volts, and which way less output lies. Tried as far as units differ: what isn't settled yet moves them by a
 * share of a volt.
 */
const weaker: Readonly<Record<string, number>> = { flux: -1, inductance: 1, damping: 1, rotor: 1 };

/**
 * Runs one claw-pole alternator, field full past its regulator or, for a point of its output, by it. Every place that
 * equal phases turn into another is one run.
 */
export function clawPoleRunner(machine: ClawPole): Runner {
  const known = new Map<string, RunTo>();
  /** Begins where the same without what is off ended, that where the sound machine did: in whatever order it is asked. */
  const ran = (build: ClawPoleBuild, setup: RunSetup, faults: readonly RunningFault[], off?: Off): RunTo => {
    const key = JSON.stringify([build.connection, build.diodeKind, setup, faults, off]);
    const found = known.get(key);
    if (found) return found;
    const near = off ? ran(build, setup, faults) : faults.length ? ran(build, setup, []) : undefined;
    const fresh = run(machine, build, setup, faults, off, near?.settled);
    known.set(key, fresh);
    return fresh;
  };
  const shown = (build: ClawPoleBuild, setup: RunSetup, faults: readonly RunningFault[], off?: Off): number =>
    ran(asStar(build, faults), setup, faults, off).value;
  return (build, setup, faults): Ran => {
    const own = build as ClawPoleBuild;
    const alike = (fault: RunningFault) => atFirstPhase(fault, machine.exciterDiodes);
    const there = setup.shows === 'tap' ? faults : faults.map(alike);
    const shows = (off?: Off) => shown(own, setup, there, off);
    const value = shows();
    const move = (name: string, by = trials[name]!) => (shows({ [name]: by }) - value) / by;
    if (setup.shows === 'tap' || setup.shows === 'exciter') {
      // A sound tap lies in the middle, sound exciter diodes give the post's volts and a little more, whatever the field.
      const moving = (faults.length ? clawPoleNuisances(machine, own) : []).flatMap(({ name, sigma }) =>
        weaker[name] === undefined ? [] : [{ name, by: weaker[name] * sigma }],
      );
      const wider = timesWider(build, 'flux');
      const amps = (of: readonly RunningFault[]) => ran(asStar(own, of), setup, of).amps;
      return {
        value,
        get moves() {
          return Object.fromEntries(moving.map(({ name, by }) => [name, move(name, by)]));
        },
        get sigma() {
          const moved = Math.hypot(...moving.map(({ name, by }) => move(name, by) * by));
          return Math.hypot(voltsShare * setup.held.volts!, bentShare * wider * moved);
        },
        astray: nothingChance(amps(there), outputShare * wider * amps([])),
      };
    }
    const sound = shown(own, setup, []);
    // So near to the speed that begins to charge, a little more flux makes all the difference.
    if (sound < faintAmps)
      return { value, moves: {}, sigma: Math.hypot(faintAmps, shown(own, setup, [], { flux: faintFlux })) };
    const share = (off: Off, by: number) => (shown(own, setup, [], off) / sound - 1) / by;
    const perKelvin = share({ celsius: kelvin }, kelvin);
    const perSpeed = share({ rpm: speedShare }, 1);
    const isPoint = setup.shows === 'own-output';
    // How warm a point's windings were has nothing to do with how warm the parts at rest were.
    const unsure = !isPoint ? 0 : setup.held.celsius === undefined ? untoldKelvin : toldKelvin;
    return {
      value,
      get moves() {
        const asSound = ([name, by]: readonly [string, number]) => [name, sound * share({ [name]: by }, by)] as const;
        const moves: Record<string, number> = Object.fromEntries(Object.entries(trials).map(asSound));
        if (!isPoint) moves.celsius = sound * perKelvin;
        if (there.length === 0) return moves;
        // What moves a sound output moves what a fault leaves of it as much more or less as flux does.
        const more = move('flux') / moves.flux!;
        for (const name of Object.keys(moves)) moves[name]! *= more;
        if (there.some(({ species }) => uneven.test(species))) moves.damping = move('damping');
        return moves;
      },
      sigma: Math.hypot(modelShare * value, perSpeed * value, 0.3, value * perKelvin * unsure),
    };
  };
}

function run(
  machine: ClawPole,
  build: ClawPoleBuild,
  { held: { rpm, volts, celsius: told }, shows }: RunSetup,
  faults: readonly RunningFault[],
  off: Off = {},
  from?: SettledRun,
): RunTo {
  const { own, excitation } = swayed(machine, build, off);
  const { windings, diodes } = told === undefined ? warm : { windings: told, diodes: told };
  const held: Stand = {
    rpm: rpm! * (1 + (off.rpm ?? 0)),
    ...heldAt(volts!),
    celsius: { windings: windings + (off.celsius ?? 0), diodes: diodes + (off.celsius ?? 0) },
    field: shows === 'own-output' ? 'own' : 'bypassed',
  };
  const there = [...faults, ...brushesOff(off.brushes)];
  const settling = { stepsPerPeriod: steps, settledShare, from };
  const ended = clawPoleRun(own, build, there, held, excitation, settling);
  return { value: shownBy(ended, shows), amps: shownBy(ended, 'output'), settled: ended.settled };
}

/**
 * The chance that a unit foreseen to give so many amperes, so surely, gives none, and holds no volts anywhere. One foreseen
 * to give none doesn't.
 */
const nothingChance = (amps: number, sigma: number): number => (amps < leastOutput ? 0 : normalCdf(-amps / sigma));

/** Between its leads a whole delta is a star (Kennelly 1899, from memory): what spares the windings runs once for both. */
const asStar = (build: ClawPoleBuild, faults: readonly RunningFault[]): ClawPoleBuild =>
  faults.some(({ species }) => ofWindings.test(species)) ? build : { ...build, connection: 'star' };

/** What was shown, the output with it, and where the run ended. */
interface RunTo {
  readonly value: number;
  readonly amps: number;
  readonly settled: SettledRun;
}

/**
 * The same fault on the first phase: an output current doesn't tell phases apart, nor sides unless the field is fed by
 * exciter diodes, which have the negative side in common with the output; nor do the volts of those.
 */
function atFirstPhase(fault: RunningFault, sides: boolean): RunningFault {
  const phase = fault.place.replace(/[ABC]/, phases[0]);
  const place = sides ? phase : phase.replace('-', '+');
  const moved = (element: string) => (fault.place === '' ? element : element.replace(fault.place, place));
  return { ...fault, place, edits: fault.edits.map((edit) => ({ ...edit, element: moved(edit.element) })) };
}
