import { commandedVolts } from '../../handbook/index.ts';
import { heldAt, type Run, type RunningFault, type Shows, type Spin, type Stand } from '../family.ts';
import type { ClawPoleBuild } from './builds.ts';
import type { ClawPole } from './parameters.ts';
import { brushesOff, clawPoleRun, shownBy, smoothSteps, swayed } from './running.ts';

/** Set-point of a sound regulator in the middle of what is usual, V on 12 V sets [common practice, no source: 13.8 to 14.5]. */
const ownVolts = 14.2;
/** Two contacts: from this rotor speed on the upper ones work, higher by so much; out of adjustment both are lower [our estimate]. */
const upper = { rpm: 3500, volts: 0.45, slack: -0.9 } as const;

/** What its regulator holds, V. */
function setVolts(
  machine: ClawPole,
  rpm: number,
  command: number | undefined,
  faults: readonly RunningFault[],
): number {
  const has = (species: string) => faults.some((fault) => fault.species === species);
  const sets = machine.ratedVolts / 12;
  if (machine.regulator === 'commanded' && command !== undefined && !has('regulator-deaf'))
    return sets * commandedVolts(command);
  if (machine.regulator !== 'two-contact') return sets * ownVolts;
  return sets * (ownVolts + (rpm >= upper.rpm ? upper.volts : 0) + (has('regulator-setting') ? upper.slack : 0));
}
/** How near a regulator comes to it, V, and in how many tries. */
const near = 0.01;
const tries = 12;

/** Spins one claw-pole alternator with its regulator at work: it draws the field back until its set-point holds. */
export function clawPoleSpin(machine: ClawPole): Spin {
  return (build, { field, command, ...stand }, faults, off) => {
    const own = swayed(machine, build as ClawPoleBuild, off);
    const there = [...faults, ...brushesOff(off.brushes)];
    const run = (field: Stand['field'], steps?: number): Run =>
      clawPoleRun(own.own, build as ClawPoleBuild, there, { ...stand, field }, own.excitation, {
        stepsPerPeriod: steps,
      });
    const at = (field: Stand['field']): Run => run(field, smoothSteps);
    /** The means of steps that move smoothly, the orders of steps that add none of their own. */
    const seen = (smooth: Run): Run => {
      const traced = run({ amps: smooth.fieldAmps });
      const both = (of: 'amps' | 'volts' | 'tap') => ({ ...traced[of], mean: smooth[of].mean });
      const exciter = traced.exciter && { exciter: { ...traced.exciter, mean: smooth.exciter!.mean } };
      return { ...traced, amps: both('amps'), volts: both('volts'), tap: both('tap'), ...exciter };
    };
    if (field === 'bypassed') return seen(at('bypassed'));
    if (faults.some(({ species }) => species === 'regulator')) return seen(at({ amps: 0 }));
    const full = at('own');
    const wanted = setVolts(machine, stand.rpm, command, faults);
    if (full.volts.mean <= wanted + near) return seen(full);
    // Between no field, the battery's volts, and all of it: by the straight line, never nearer to an end than a tenth.
    let low = { amps: 0, volts: Math.min(stand.batteryVolts, wanted) };
    let high = { amps: full.fieldAmps, volts: full.volts.mean };
    let found = full;
    for (let n = 0; n < tries && Math.abs(found.volts.mean - wanted) > near; n++) {
      const share = Math.min(Math.max((wanted - low.volts) / (high.volts - low.volts), 0.1), 0.9);
      found = at({ amps: low.amps + share * (high.amps - low.amps) });
      const now = { amps: found.fieldAmps, volts: found.volts.mean };
      if (now.volts > wanted) high = now;
      else low = now;
    }
    return seen(found);
  };
}

/** Windings and diodes after a few minutes at full output, °C [from memory]. */
const warm = 70;

/** What clamp and meter show on one machine, past its regulator or by it. */
export function clawPoleShows(machine: ClawPole): Shows {
  const spin = clawPoleSpin(machine);
  return (build, { held, shows }, faults, off) => {
    const celsius = (held.celsius ?? warm) + (off.celsius ?? 0);
    const stand = {
      ...heldAt(held.volts!),
      celsius: { windings: celsius, diodes: celsius },
      field: shows === 'own-output' ? ('regulated' as const) : ('bypassed' as const),
    };
    return shownBy(spin(build, { ...stand, rpm: held.rpm! * (1 + (off.rpm ?? 0)) }, faults, off), shows);
  };
}
