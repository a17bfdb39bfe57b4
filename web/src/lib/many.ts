import { families } from '@refectum/core/machines';
import Papa from 'papaparse';

/** One line of a list of units, as it was written. */
export interface Line {
  readonly customer: string;
  readonly model: string;
  readonly serial: string;
  readonly complaint: string;
  readonly words: string;
  readonly due: string;
  readonly volts: string;
  readonly amps: string;
  /** Of a starter, in place of amps. */
  readonly kilowatts: string;
}

export const columns: readonly (keyof Line)[] = [
  'customer',
  'model',
  'serial',
  'complaint',
  'words',
  'due',
  'volts',
  'amps',
  'kilowatts',
];

/** What became of a line: the tag it was checked in under, or why it was not. */
export interface LineResult {
  readonly tag?: number;
  readonly problem?: string;
}

export interface Sheet {
  readonly lines: readonly Line[];
  /** Why the sheet as a whole can't be read. */
  readonly problem: string | undefined;
}

/** Reads CSV, or what a spreadsheet puts on the clipboard; the first line names the columns, in any order. */
export function readSheet(text: string): Sheet {
  if (!text.trim()) return { lines: [], problem: undefined };
  const { data, meta } = Papa.parse<Record<string, string>>(text.trim(), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (name) => name.trim().toLowerCase(),
  });
  const given = meta.fields ?? [];
  const unknown = given.filter((name) => !(columns as readonly string[]).includes(name));
  if (unknown.length)
    return {
      lines: [],
      problem: `No column “${unknown.join('”, “')}” here: the first line names ${columns.join(', ')}.`,
    };
  const missing = ['customer', 'model', 'complaint'].filter((name) => !given.includes(name));
  if (missing.length) return { lines: [], problem: `The first line lacks ${missing.join(', ')}.` };
  const lines = data.map(
    (row) => Object.fromEntries(columns.map((name) => [name, (row[name] ?? '').trim()])) as unknown as Line,
  );
  return { lines, problem: undefined };
}

/** The lines as CSV again, to be mended. */
export const writeSheet = (lines: readonly Line[]): string =>
  Papa.unparse([...lines], { columns: [...columns], newline: '\n' });

/** Keys of the lines, each its own wherever it stands: its text, and which of the same text it is. */
export function lineKeys(lines: readonly Line[]): string[] {
  const texts = lines.map((line) => JSON.stringify(columns.map((name) => line[name])));
  return texts.map((text, at) => `${texts.slice(0, at).filter((earlier) => earlier === text).length} ${text}`);
}

const complaints = Object.values(families)
  .flatMap((family) => family.complaints)
  .filter(({ id }, at, all) => all.findIndex((other) => other.id === id) === at);

/** The complaint by its id or its name, however it is capitalised. */
export function complaintId(written: string): string | undefined {
  const same = (text: string) => text.toLowerCase() === written.trim().toLowerCase();
  return complaints.find(({ id, name }) => same(id) || same(name))?.id;
}
export const complaintNames: readonly string[] = complaints.map(({ name }) => name);
