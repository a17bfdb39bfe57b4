import { outputCurve } from '@refectum/core/curves';
import { familyOf } from '@refectum/core/machines';
import { dayAndTimeOf } from '../dates.ts';
import type { Job } from '../job.ts';
import { readRunLog } from '../run-log.ts';

/** What the run stand has to say on a report, in a line each; nothing when it wasn't run. */
export function standLines({ machine, runs, works }: Job): readonly string[] {
  const { points, released } = readRunLog(runs, works.length + 1);
  const said = released?.step.kind === 'released' ? released.step : undefined;
  const against = said
    ? [`Run against a red light: ${released!.technician}, ${dayAndTimeOf(released!.at)}, answers for it: “${said.why}”`]
    : [];
  const family = familyOf(machine);
  const { generates } = family;
  if (points.length === 0 || !generates) return against;
  const shown = points.map(({ rpm, volts, amps, celsius }) => {
    const heat = celsius === undefined ? '' : `, windings ${celsius} °C`;
    return `${amps.toFixed(1)} A at ${rpm} rpm and ${volts.toFixed(1)} V${heat}`;
  });
  const { rpm, volts, amps: rated } = generates.rating(machine);
  const curve = outputCurve(generates.output(machine, family.builds(machine)[0]!, []), points);
  const { amps, low, high } = curve.foresee({ rpm, volts, celsius: points.at(-1)!.celsius });
  const foreseen = `Foreseen at ${rpm} rpm and ${volts} V: ${amps.toFixed(0)} A (${low.toFixed(0)} to ${high.toFixed(0)}, 95 %), rated ${rated} A.`;
  return [...against, `Output: ${shown.join('; ')}.`, foreseen];
}
