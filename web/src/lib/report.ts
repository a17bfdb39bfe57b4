import { readDrainLog } from '@refectum/core/vehicle';
import type { Assessment, VehicleAssessment, Winding } from '@refectum/core/assess';
import { factValue, familyOf, type Machine } from '@refectum/core/machines';
import { writeFact } from '@refectum/core/shelf';
import { formatQuantity, units } from '@refectum/core/quantity';
import { contraryBuild } from './contrary.ts';
import { complaintName, type Job, type Plate, standing, type TakenReading } from './job.ts';

/** What stands on every report. */
export const reportCautions: readonly string[] = [
  'Local codes, the maker’s manual and licensed practice come first.',
  'Battery: the grounded terminal comes off first and goes on last. Never take the battery off a running machine.',
  'The output cable is live whenever the battery is connected.',
];

/** The unit as built, in a line each. */
export function identityLines(job: Job): readonly (readonly [string, string])[] {
  const { machine } = job;
  return [
    ['Customer', job.customer],
    ['Model', job.model],
    ['Serial number', job.serial || 'not read'],
    ['Complaint', `${complaintName(job.complaint)}${job.words ? `: ${job.words}` : ''}`],
    ['Rating', ratingLine(machine)],
    ['Build', buildLine(machine)],
    ...plateLine(job.plate),
    ['Measured with', metersLine(job)],
    ['Reckoned with', `${reckonedLine(machine)}, at 20\u202f°C`],
  ];
}

/** The meters of the readings that stand, and the temperatures they were taken at. */
function metersLine(job: Job): string {
  const readings = standing(job, 'bench');
  if (readings.length === 0) return 'nothing yet';
  const name = (id: string) => job.meters.find(({ known }) => known.id === id)?.known.name ?? id;
  const meters = new Set(readings.map(({ meter }) => name(meter)));
  const celsius = new Set(readings.map((reading) => formatQuantity(reading.celsius, 'celsius', 1)));
  return `${[...meters].join(', ')}; part at ${[...celsius].join(', ')}`;
}

/** What was read on the vehicle or told of it, and what followed for the unit. */
export interface VehicleLines {
  readonly conclusion: string;
  readonly readings: readonly { readonly id: string; readonly text: string }[];
}

/** Undefined when nobody asked about the vehicle. */
export function vehicleLines(job: Job, assessment: VehicleAssessment): VehicleLines | undefined {
  const drain = readDrainLog(job.drain).conclusion;
  if (assessment.readings.length === 0 && !drain) return undefined;
  const told = new Map(job.readings.map((reading) => [reading.id, tellers[reading.told]]));
  const readings = assessment.readings.map(({ id, name, shown, word }) => {
    return { id, text: `${name}: ${shown}, ${word}${told.get(id) ?? ''}` };
  });
  const followed = drain ? [{ id: 'drain', text: `Drain, fuse by fuse: ${drain}` }] : [];
  return { conclusion: assessment.blame.reason, readings: [...readings, ...followed] };
}
const tellers = { own: '', shop: ' (told by another shop)', customer: ' (told by the customer)' } as const;

/** What else was read off the unit; no line when nothing was. */
function plateLine({ direction, pulley, connector, cameWith }: Plate): readonly (readonly [string, string])[] {
  const read = [direction && `turns ${direction}`, pulley && `${pulley} pulley`, connector && `connector ${connector}`];
  const line = [...read, cameWith && `came with ${cameWith}`].filter(Boolean).join('; ');
  return line ? [['Plate', line]] : [];
}

function ratingLine(machine: Machine): string {
  const { size, facts } = familyOf(machine);
  const fact = facts.find(({ id }) => id === size.fact)!;
  const symbol = 'unit' in fact.kind ? units[fact.kind.unit].symbol : '';
  return `${machine.ratedVolts}\u202fV, ${String(factValue(machine, fact))}\u202f${symbol}`;
}

/** What was chosen of the build, in a line. */
function buildLine(machine: Machine): string {
  const { name, facts } = familyOf(machine);
  const chosen = facts
    .filter(({ id, kind }) => 'choices' in kind && id !== 'ratedVolts')
    .map((fact) => `${fact.name.toLowerCase()} ${writeFact(fact, factValue(machine, fact)!)}`);
  return [name, ...chosen].join('; ');
}

/** The figures that the expected readings follow from. */
function reckonedLine(machine: Machine): string {
  const { facts } = familyOf(machine);
  return facts
    .flatMap((fact) => {
      const { name, aside, kind } = fact;
      const value = factValue(machine, fact);
      return aside && 'unit' in kind && typeof value === 'number'
        ? [`${name.toLowerCase()} ${formatQuantity(value, kind.unit).trim()}`]
        : [];
    })
    .join('; ');
}

/** What it reads like, where that isn't what it was checked in as. */
export function readsLikeLine(diagnosis: Pick<Assessment, 'builds'>): readonly (readonly [string, string])[] {
  const contrary = contraryBuild(diagnosis);
  return contrary ? [['Reads like', `${contrary.name}, not what it was checked in as: judged as that`]] : [];
}

/** The parts with a word, those never looked at last, in one line. */
export const findingsLines = (assessment: Assessment): readonly { word: string; names: string }[] =>
  ['failed', 'doubtful', "can't tell", 'sound', 'not looked at'].flatMap((word) => {
    const names = assessment.parts.filter((part) => part.word === word).map((part) => part.name);
    return names.length ? [{ word, names: names.join(', ') }] : [];
  });

/** What was read of a winding's copper, beside its plate. */
export function copperText({ name, mean, sigma }: Winding): string {
  const percent = Math.round(100 * Math.expm1(mean));
  const off = percent === 0 ? 'as its plate' : `${Math.abs(percent)} % ${percent > 0 ? 'above' : 'below'} its plate`;
  return `${name.toLowerCase()} ${off}, ± ${Math.max(1, Math.round(100 * sigma))} %, by what was read at rest`;
}

/** The heading of the readings: after work on the unit they are those of its newest round. */
export const readingsHeading = ({ works }: Pick<Job, 'works'>): string =>
  works.length ? 'Readings after the work' : 'Readings';

/** What stands under a reading that came of pairs of pins: each pair. */
export const pairLines = (reading: TakenReading | undefined): readonly string[] =>
  (reading?.detail?.pairs ?? []).map(({ pins, own, twin }) => `${pins}: ${own} against ${twin}`);

/** What isn't among the readings, and what reasoned with them. */
export function readingsAside({ readings }: Pick<Job, 'readings'>, { engine }: Pick<Assessment, 'engine'>): string {
  const struck = readings.filter((reading) => reading.struck && reading.place === 'bench').length;
  return `${struck ? `${struck} struck out and not counted. ` : ''}Reasoned with engine ${engine}.`;
}
