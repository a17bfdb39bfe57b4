import type { Outcome } from '@refectum/core/checks';
import type { Machine } from '@refectum/core/machines';
import type { CourseId, Prices } from '@refectum/core/verdict';

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
  readonly assembly: string;
  readonly meter: string;
  readonly celsius: number;
  readonly prices: Prices;
  readonly checkedInAt: string;
  readonly technician: string;
  readonly readings: readonly TakenReading[];
  readonly verdicts: readonly Decision[];
}

export interface TakenReading {
  readonly id: string;
  readonly check: string;
  readonly typed: string;
  readonly outcome: Outcome;
  readonly meter: string;
  readonly celsius: number;
  readonly at: string;
  readonly technician: string;
  readonly struck?: { readonly at: string; readonly technician: string };
}

export interface Decision {
  readonly id: string;
  readonly course: CourseId;
  readonly reason: string;
  readonly engine: string;
  readonly at: string;
  readonly technician: string;
}

/** What a tag's barcode says. No reading begins with it. */
export const tagPrefix = 'TAG-';
export const tagCode = (tag: number): string => `${tagPrefix}${tag}`;

/** The tag number in a scanned or typed code; undefined when it is none. */
export function tagFromCode(code: string): number | undefined {
  const match = /^(?:TAG-)?(\d{1,9})$/i.exec(code.trim());
  return match ? Number(match[1]) : undefined;
}

export const standing = (job: Job): readonly TakenReading[] => job.readings.filter((reading) => !reading.struck);
