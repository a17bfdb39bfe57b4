import type { Multimeter, Range } from '@refectum/core/instruments';
import { parseQuantity, type Unit } from '@refectum/core/quantity';
import { addMonths, formatISO, isBefore, parseISO } from 'date-fns';
import { type InferType, ValidationError } from 'yup';
import type { ShopMeter } from './job.ts';
import { shopMeterSchema } from './schemas.ts';

/** A meter as it is typed: texts throughout, a range a line. */
export interface MeterDraft {
  readonly id: string;
  name: string;
  description: string;
  diode: string;
  ohms: string;
  volts: string;
  voltsInput: string;
  bandwidth: string;
  leads: string;
  leadsSpread: string;
  calibratedOn: string;
  everyMonths: string;
  retired: boolean;
}

type Field = Exclude<keyof MeterDraft, 'id' | 'retired'>;

/** What each line of ranges says, for the form. */
export const rangeOrder = {
  volts: 'full scale, smallest step, % of reading, steps',
  ohms: 'full scale, smallest step, % of reading, steps, open volts, source resistance',
} as const;

/** Exact, with a prefix where that is shorter. */
function exact(value: number, unit: Unit): string {
  const [scale, prefix] =
    unit === 'ohms' && value >= 1e6 ? [1e6, 'M'] : unit === 'ohms' && value >= 1e3 ? [1e3, 'k'] : [1, ''];
  return `${Number((value / scale).toPrecision(10))}${prefix}`;
}
const line = (unit: Unit, { fullScale, step, percent, counts }: Range, source: readonly string[] = []): string =>
  [exact(fullScale, unit), exact(step, unit), String(percent), String(counts), ...source].join(', ');
const sourceOf = ({ sourceVolts, sourceOhms }: { sourceVolts: number; sourceOhms: number }): string[] => [
  exact(sourceVolts, 'volts'),
  exact(sourceOhms, 'ohms'),
];

export const meterDraft = ({ known, calibratedOn, everyMonths, retired }: ShopMeter): MeterDraft => ({
  id: known.id,
  name: known.name,
  description: known.description,
  diode: line('volts', known.diode, sourceOf(known.diode)),
  ohms: known.ohms.map((range) => line('ohms', range, sourceOf(range))).join('\n'),
  volts: known.volts.map((range) => line('volts', range)).join('\n'),
  voltsInput: exact(known.voltsInputOhms, 'ohms'),
  bandwidth: String(known.bandwidthHertz),
  leads: exact(known.leadOhms, 'ohms'),
  leadsSpread: exact(known.leadOhmsSigma, 'ohms'),
  calibratedOn: calibratedOn ?? '',
  everyMonths: everyMonths === null ? '' : String(everyMonths),
  retired,
});

class Unread extends Error {
  readonly field: Field;
  constructor(field: Field, message: string) {
    super(message);
    this.field = field;
  }
}

function quantity(field: Field, text: string, unit: Unit): number {
  const read = parseQuantity(text, unit);
  if (read.kind === 'value') return read.value;
  throw new Unread(field, read.kind === 'refused' ? read.message : `“${text}” is no value here.`);
}

const plain = (field: Field, text: string): number => {
  const value = Number(text.replace(',', '.'));
  if (text.trim() === '' || !Number.isFinite(value)) throw new Unread(field, `“${text}” is no number.`);
  return value;
};

/** A range a line: `400, 0.1, 0.8, 2` and, for ohms, the source behind it. */
function rangesOf(
  field: 'diode' | 'ohms' | 'volts',
  text: string,
): (Range & { sourceVolts?: number; sourceOhms?: number })[] {
  const unit: Unit = field === 'ohms' ? 'ohms' : 'volts';
  const wanted = field === 'volts' ? 4 : 6;
  return text
    .split('\n')
    .filter((row) => row.trim())
    .map((row, i) => {
      const cells = row.split(/[,;]/).map((cell) => cell.trim());
      if (cells.length !== wanted)
        throw new Unread(
          field,
          `Line ${i + 1}: ${wanted} values with commas between (${rangeOrder[field === 'volts' ? 'volts' : 'ohms']}) — got ${cells.length}.`,
        );
      const range = {
        fullScale: quantity(field, cells[0]!, unit),
        step: quantity(field, cells[1]!, unit),
        percent: plain(field, cells[2]!),
        counts: plain(field, cells[3]!),
      };
      if (field === 'volts') return range;
      return {
        ...range,
        sourceVolts: quantity(field, cells[4]!, 'volts'),
        sourceOhms: quantity(field, cells[5]!, 'ohms'),
      };
    });
}

export type MeterProblems = Partial<Record<Field | 'form', string>>;

const fieldOf = (path: string): Field | 'form' => {
  const at = path.replace(/^known\./, '').split(/[.[]/)[0]!;
  const named: Readonly<Record<string, Field>> = {
    voltsInputOhms: 'voltsInput',
    bandwidthHertz: 'bandwidth',
    leadOhms: 'leads',
    leadOhmsSigma: 'leadsSpread',
  };
  return named[at] ?? (at in meterFields ? (at as Field) : 'form');
};

const meterFields: Readonly<Record<Field, true>> = {
  name: true,
  description: true,
  diode: true,
  ohms: true,
  volts: true,
  voltsInput: true,
  bandwidth: true,
  leads: true,
  leadsSpread: true,
  calibratedOn: true,
  everyMonths: true,
};

/** The meter that a draft describes, or what is wrong with it at its place. */
export function readMeter(draft: MeterDraft): { readonly meter: ShopMeter } | { readonly problems: MeterProblems } {
  try {
    const [diode, ...more] = rangesOf('diode', draft.diode);
    if (!diode || more.length) throw new Unread('diode', 'One line: the diode test has one range.');
    const given = {
      known: {
        id: draft.id,
        name: draft.name.trim(),
        description: draft.description.trim(),
        diode,
        ohms: rangesOf('ohms', draft.ohms),
        volts: rangesOf('volts', draft.volts),
        voltsInputOhms: quantity('voltsInput', draft.voltsInput, 'ohms'),
        bandwidthHertz: plain('bandwidth', draft.bandwidth),
        leadOhms: quantity('leads', draft.leads, 'ohms'),
        leadOhmsSigma: quantity('leadsSpread', draft.leadsSpread, 'ohms'),
      },
      calibratedOn: draft.calibratedOn || null,
      everyMonths: draft.everyMonths.trim() ? plain('everyMonths', draft.everyMonths) : null,
      retired: draft.retired,
    };
    const checked: InferType<typeof shopMeterSchema> = shopMeterSchema.validateSync(given, {
      abortEarly: false,
      strict: true,
    });
    return { meter: { ...checked, known: checked.known as Multimeter } };
  } catch (cause) {
    if (cause instanceof Unread) return { problems: { [cause.field]: cause.message } };
    if (!(cause instanceof ValidationError)) throw cause;
    const all = cause.inner.length ? cause.inner : [cause];
    return {
      problems: Object.fromEntries(all.toReversed().map(({ path, message }) => [fieldOf(path ?? ''), message])),
    };
  }
}

/** Until when a calibration holds; undefined when none is kept. */
export const dueOf = ({
  calibratedOn,
  everyMonths,
}: Pick<ShopMeter, 'calibratedOn' | 'everyMonths'>): string | undefined =>
  calibratedOn && everyMonths
    ? formatISO(addMonths(parseISO(calibratedOn), everyMonths), { representation: 'date' })
    : undefined;

export const isOverdue = (meter: Pick<ShopMeter, 'calibratedOn' | 'everyMonths'>, now: Date): boolean => {
  const due = dueOf(meter);
  return due !== undefined && isBefore(parseISO(due), now);
};
