import { multimeters } from '@refectum/core/instruments';
import { type JobFile, jobFileVersion } from '@refectum/core/record';
import { type Job, metersInUse, outputOf, type TakenReading, vehicleOf } from '../job.ts';

const readingRecord = ({ id, check, outcome, meter, celsius, at, round, technician: by, struck }: TakenReading) => ({
  id,
  check,
  outcome,
  meter,
  celsius,
  at,
  technician: by,
  ...(round > 1 ? { round } : {}),
  struck,
});

function originRecord(found: Job): JobFile['origin'] {
  const taken = found.readings.filter(({ place }) => place === 'vehicle');
  if (!taken.length && !found.vehicle) return undefined;
  return { vehicle: vehicleOf(found), readings: taken.map((r) => ({ ...readingRecord(r), told: r.told })) };
}

/** The shop's own meters that a job names; the kinds that come with the program need no description. */
function describedMeters(found: Job): JobFile['meters'] {
  const own = metersInUse(found, found.meter).filter((used) => {
    const kind = multimeters.find(({ id }) => id === used.id);
    return JSON.stringify(kind) !== JSON.stringify(used);
  });
  return own.length ? own.map((known) => ({ ...known, ohms: [...known.ohms], volts: [...known.volts] })) : undefined;
}

function outputRecord(found: Job): JobFile['output'] {
  const points = outputOf(found);
  return points.length ? points : undefined;
}

/** The job in the open format. */
export function jobFileOf(found: Job): JobFile {
  return {
    format: 'refectum-job',
    version: jobFileVersion,
    tag: String(found.tag),
    customer: found.customer,
    model: found.model,
    complaint: found.complaint,
    words: found.words,
    machine: found.machine,
    assembly: found.assembly,
    meter: found.meter,
    celsius: found.celsius,
    readings: found.readings.filter(({ place }) => place === 'bench').map(readingRecord),
    origin: originRecord(found),
    works: found.works.length
      ? found.works.map(({ id: _, ...work }) => ({ ...work, fitted: [...work.fitted], mended: [...work.mended] }))
      : undefined,
    output: outputRecord(found),
    variants: found.variants.length ? [...found.variants] : undefined,
    unlikeShare: found.unlikeShare,
    meters: describedMeters(found),
    prices: { ...found.prices, items: { ...found.prices.items } },
  };
}
