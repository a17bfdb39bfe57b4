import { type Background, type Origin, type Read, roundsOf, type TapeReading } from '@refectum/core/assess';
import type { OutputPoint } from '@refectum/core/curves';
import type { Teller } from '@refectum/core/belief';
import type { Outcome } from '@refectum/core/checks';
import { starterRestMinutes } from '@refectum/core/handbook';
import type { Multimeter } from '@refectum/core/instruments';
import type { Machine, Variant } from '@refectum/core/machines';
import { families, familyOf } from '@refectum/core/machines';
import { type DrainEntry, type Vehicle, vehicleGeneric } from '@refectum/core/vehicle';
import type { Warning } from '@refectum/core/shelf';
import { type CourseId, courseNames, type Prices } from '@refectum/core/verdict';
import { readRunLog, type TakenRunStep } from './run-log.ts';
import type { Stand } from './stands.ts';

/** Where a reading is taken. */
export type Place = 'bench' | 'vehicle';

/** What is read off a unit beside its ratings; empty where nobody looked. */
export interface Plate {
  readonly direction: '' | 'clockwise' | 'counter-clockwise' | 'either';
  readonly pulley: '' | 'solid' | 'one-way clutch' | 'decoupler';
  readonly connector: string;
  readonly cameWith: string;
}
export const directions = ['', 'clockwise', 'counter-clockwise', 'either'] as const;
export const pulleys = ['', 'solid', 'one-way clutch', 'decoupler'] as const;

/** A model that check-in can fill in. */
export interface KnownModel {
  readonly model: string;
  readonly machine: Machine;
  readonly plate: Plate;
  /** The tag it was last seen under, when it isn't on the shelf. */
  readonly tag: number | undefined;
  /** What makes it pass for another. */
  readonly warnings: readonly Warning[];
  readonly variants: readonly { readonly name: string; readonly tell: string; readonly machine: Machine }[];
}

/** A job as screens and API know it. */
export interface Job {
  readonly id: string;
  readonly tag: number;
  readonly customer: string;
  readonly model: string;
  readonly serial: string;
  readonly complaint: string;
  readonly words: string;
  readonly due: string | null;
  readonly machine: Machine;
  readonly plate: Plate;
  readonly stand: Stand;
  readonly assembly: string;
  readonly meter: string;
  readonly celsius: number;
  readonly prices: Prices;
  readonly vehicle: Vehicle | null;
  /** What else its model is built as. */
  readonly variants: readonly Variant[];
  /** How common units unlike their kind were among those that the shop had decided when it came in. */
  readonly unlikeShare: number;
  readonly knownGood: boolean;
  readonly works: readonly TakenWork[];
  /** The shop's, retired ones too. */
  readonly meters: readonly ShopMeter[];
  readonly checkedInAt: string;
  readonly technician: string;
  readonly readings: readonly TakenReading[];
  readonly verdicts: readonly Decision[];
  readonly moves: readonly Move[];
  /** A key-off drain followed fuse by fuse. */
  readonly drain: readonly TakenDrainStep[];
  /** What was run on the stand beside the checks: the points of its output. */
  readonly runs: readonly TakenRunStep[];
}

/** What was done to the unit between two rounds of readings. */
export interface TakenWork {
  readonly id: string;
  readonly fitted: readonly string[];
  readonly mended: readonly string[];
  readonly note: string;
  readonly at: string;
  readonly technician: string;
}

/** A meter of the shop. */
export interface ShopMeter {
  readonly known: Multimeter;
  readonly calibratedOn: string | null;
  readonly everyMonths: number | null;
  readonly retired: boolean;
}

/** What a meter's leads showed when they were last held together. */
export interface LeadsNull {
  readonly ohms: number;
  readonly at: string;
  readonly tag: number;
}

/** Pairs of pins read on a unit's part and on its twin. */
export interface ReadingDetail {
  readonly pairs: readonly { readonly pins: string; readonly own: string; readonly twin: string }[];
}

export interface TakenDrainStep extends DrainEntry {
  readonly technician: string;
}

/** A unit carried from one place in the shop to another. */
export interface Move {
  readonly from: Stand;
  readonly to: Stand;
  readonly note: string;
  readonly at: string;
  readonly technician: string;
}

/** Stands for every tag, where it isn't known which job changed. */
export const anyTag = 0;

/** What a tag shows. */
export interface TagFacts extends Pick<Job, 'tag' | 'customer' | 'model' | 'words' | 'due' | 'stand'> {
  readonly complaint: string;
  /** Readings on the bench that stand. */
  readonly readings: number;
  readonly decision: { readonly course: CourseId; readonly technician: string } | undefined;
}

export interface TakenReading {
  readonly id: string;
  readonly place: Place;
  readonly told: Teller;
  readonly check: string;
  readonly typed: string;
  readonly outcome: Outcome;
  readonly meter: string;
  readonly celsius: number;
  readonly at: string;
  readonly technician: string;
  /** On the bench: the first is that of the unit as received. */
  readonly round: number;
  readonly detail?: ReadingDetail | undefined;
  readonly struck?: { readonly at: string; readonly technician: string };
}

export interface Decision {
  readonly id: string;
  readonly course: CourseId;
  readonly reason: string;
  /** What the verdict sheet recommended at that moment, if anything. */
  readonly advised: CourseId | undefined;
  /** Why the sheet held that this course couldn't be chosen, if it did. */
  readonly barred: string | undefined;
  readonly engine: string;
  readonly at: string;
  readonly technician: string;
}

/** How a decision went against what was advised; empty when it didn't. */
export function overrode({ course, advised, barred }: Pick<Decision, 'course' | 'advised' | 'barred'>): string {
  if (advised && advised !== course) return `against the sheet, which advised: ${courseNames[advised].toLowerCase()}`;
  return barred ? `against the sheet: “${barred}”` : '';
}

/** What a tag's barcode says. No reading begins with it. */
export const tagPrefix = 'TAG-';
export const tagCode = (tag: number): string => `${tagPrefix}${tag}`;

/** The tag number in a scanned or typed code; undefined when it is none. */
export function tagFromCode(code: string): number | undefined {
  const match = /^(?:TAG-)?(\d{1,9})$/i.exec(code.trim());
  return match ? Number(match[1]) : undefined;
}

/** The readings of one place that stand. */
export const standing = ({ readings }: Pick<Job, 'readings'>, place: Place): readonly TakenReading[] =>
  readings.filter((reading) => !reading.struck && reading.place === place);

const complaints = Object.values(families).flatMap((family) => family.complaints);
export const complaintName = (id: string): string => complaints.find((complaint) => complaint.id === id)?.name ?? id;

export const tagFacts = (job: Job): TagFacts => ({
  ...job,
  readings: standing(job, 'bench').length,
  decision: job.verdicts.at(-1),
});

/** The vehicle as it was described, or as little as the unit's plate tells of it. */
export const vehicleOf = ({ vehicle, machine }: Pick<Job, 'vehicle' | 'machine'>): Vehicle =>
  vehicle ?? vehicleGeneric(machine.ratedVolts, familyOf(machine).generates?.rating(machine).amps ?? usualMachineAmps);
/** Of an alternator that isn't the unit [from memory]. */
const usualMachineAmps = 90;

/** A reading before the server says who took it. */
type Unsigned = Omit<TakenReading, 'technician'>;

/** What the reasoning needs of a reading. */
export const tapeReading = ({ id, check, outcome, meter, celsius, told }: Unsigned): TapeReading => ({
  id,
  check,
  outcome,
  meter,
  celsius,
  told,
});

/** Whether a unit has rested since its last reading, should that have been a run. */
export const hasRested = (readings: readonly { readonly at: string }[]): boolean => {
  const last = readings.at(-1);
  return last !== undefined && Date.now() - Date.parse(last.at) >= 60_000 * starterRestMinutes;
};

/** The points of the output that stand, of every round. */
export const outputOf = ({ runs, works }: Pick<Job, 'runs' | 'works'>): (OutputPoint & { round: number })[] =>
  Array.from({ length: works.length + 1 }, (_, n) => n + 1).flatMap((round) =>
    readRunLog(runs, round).points.map(({ id: _, ...point }) => ({ ...point, round })),
  );

/** What a unit on the bench is reasoned about with: what was read in the open round, and all that came before. */
export function benchRounds(
  job: Pick<Job, 'vehicle' | 'machine' | 'readings' | 'runs' | 'works' | 'variants' | 'unlikeShare'>,
): Read & { readonly background: Background & { readonly origin: Origin } } {
  const own = standing(job, 'bench').map((reading) => ({ ...tapeReading(reading), round: reading.round }));
  const { open, past } = roundsOf(own, outputOf(job), job.works);
  return { ...open, background: { origin: originOf(job), past, variants: job.variants, unlikeShare: job.unlikeShare } };
}

/** The meters that a unit's readings were taken with and the next one will be. */
export function metersInUse({ readings, meters }: Pick<Job, 'readings' | 'meters'>, next: string): Multimeter[] {
  const used = new Set([next, ...readings.filter(({ struck }) => !struck).map(({ meter }) => meter)]);
  return meters.map(({ known }) => known).filter(({ id }) => used.has(id));
}

/** What the reasoning is given of a unit's vehicle. */
export const originOf = (job: Pick<Job, 'vehicle' | 'machine' | 'readings'>): Origin => ({
  vehicle: vehicleOf(job),
  readings: standing(job, 'vehicle').map(tapeReading),
});
