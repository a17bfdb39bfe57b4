import type { Winding } from '@refectum/core/assess';
import { type Foreseen, motorThrough, ofFaulty, outputCurve, pileVolts } from '@refectum/core/curves';
import { type Drives, familyOf, type Machine } from '@refectum/core/machines';
import { dayAndTimeOf } from '../../dates.ts';
import { benchRounds, type Job } from '../../job.ts';
import { readRunLog } from '../../run-log.ts';

/** What the run stand has to say on a report, in a line each; nothing when it wasn't run. */
export function standLines(job: Job, windings: readonly Winding[]): readonly string[] {
  const { machine, runs, works } = job;
  const { points, released } = readRunLog(runs, works.length + 1);
  const said = released?.step.kind === 'released' ? released.step : undefined;
  const against = said
    ? [`Run against a red light: ${released!.technician}, ${dayAndTimeOf(released!.at)}, answers for it: “${said.why}”`]
    : [];
  const family = familyOf(machine);
  const { generates, drives } = family;
  if (drives) return [...against, ...motorLines(job, drives)];
  if (points.length === 0 || !generates) return against;
  const shown = points.map(({ rpm, volts, amps, celsius }) => {
    const heat = celsius === undefined ? '' : `, windings ${celsius} °C`;
    return `${amps.toFixed(1)} A at ${rpm} rpm and ${volts.toFixed(1)} V${heat}`;
  });
  const { rpm, volts, amps: rated } = generates.rating(machine);
  const winding = windings.find(({ id }) => id === generates.outputWinding);
  const curve = outputCurve(generates.output(machine, family.builds(machine)[0]!, [], winding), points);
  const at = { rpm, volts, celsius: points.at(-1)!.celsius };
  const most = curve.most(at, pileVolts(volts));
  // Both schools of what an output is: whoever reads it may count by either.
  const foreseen = `Foreseen at ${rpm} rpm and ${volts} V: ${ranged(curve.foresee(at))}; the most a pile draws there, at ${most.volts.toFixed(1)} V: ${ranged(most)}. Rated ${rated} A.`;
  return [...against, `Output: ${shown.join('; ')}.`, foreseen];
}

const ranged = ({ amps, low, high }: Foreseen): string =>
  `${amps.toFixed(0)} A (${low.toFixed(0)} to ${high.toFixed(0)}, 95 %)`;

/** Windings as warm as a bench; figures are told at this temperature. */
const benchCelsius = 20;

/** What the points without load, braked and held say of a motor's power. */
function motorLines(job: Job, drives: Drives<Machine>): readonly string[] {
  const { machine } = job;
  const points = drives.points(machine, benchRounds(job).readings);
  if (points.every(({ load }) => load === 'none')) return [];
  const { motor, source } = drives.fed(machine, [], benchCelsius);
  const wide = { ...drives.priors, ...ofFaulty };
  const { mean, low, high } = motorThrough(motor, points, wide, source).peak(drives.ratedOn(machine));
  const rated = drives.ratedWatts(machine);
  return [
    `Most power at the pinion, from ${points.length} points: ${mean.toFixed(0)} W (${low.toFixed(0)} to ${high.toFixed(0)}, 95 %), rated ${rated.toFixed(0)} W.`,
  ];
}
