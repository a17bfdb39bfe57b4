import { shelfModelSchema } from '@refectum/core/record';
import { families, type FactValue, type FamilyId, familyBy, type Machine } from '@refectum/core/machines';
import {
  factsOf,
  type Facts,
  type Known,
  machineOf,
  readFact,
  type ShelfFact,
  type ShelfModel,
  type Trap,
  type TrapAbout,
  trapAbouts,
  writeFact,
} from '@refectum/core/shelf';
import Papa from 'papaparse';
import { ValidationError } from 'yup';

/** A value and its source as somebody types them; both empty where nothing is known. */
export interface Cell {
  readonly text: string;
  readonly source: string;
}
export type Cells = Readonly<Record<string, Cell>>;

/** A model as it is typed, in a form or a sheet, before it is understood. */
export interface Draft {
  readonly name: string;
  readonly family: FamilyId;
  readonly cells: Cells;
  readonly variants: readonly { readonly name: string; readonly tell: string; readonly cells: Cells }[];
  readonly traps: readonly Trap[];
}
/** Sentences by the path of what they are about, like `facts.ratedAmps`. */
export type Problems = Readonly<Record<string, string>>;

/** The facts that a draft can have so far: what it is decides which checks and parts there are. */
export function factsOfDraft({ family, cells }: Pick<Draft, 'family' | 'cells'>): readonly ShelfFact[] {
  const own = familyBy(family).facts;
  const read = own.flatMap((fact): (readonly [string, Known])[] => {
    const text = cells[fact.id]?.text.trim();
    const value = text ? readFact(fact, text) : undefined;
    return value && 'value' in value ? [[fact.id, { value: value.value, source: '' }]] : [];
  });
  return factsOf(machineOf({ family, facts: Object.fromEntries(read) }));
}

const emptyCells = (cells: Cells): boolean => Object.values(cells).every(({ text }) => text.trim() === '');

/** A draft without the variants and traps that nobody filled in. */
export const withoutBlanks = (draft: Draft): Draft => ({
  ...draft,
  variants: draft.variants.filter(({ name, tell, cells }) => name.trim() || tell.trim() || !emptyCells(cells)),
  traps: draft.traps.filter(({ say, source }) => say.trim() || source.trim()),
});

/** Understands a draft, or says what is wrong with it, and where; by the places that are left `withoutBlanks`. */
export function modelOf(typed: Draft): { readonly model: ShelfModel } | { readonly problems: Problems } {
  const draft = withoutBlanks(typed);
  const facts = factsOfDraft(draft);
  const problems: Record<string, string> = {};
  const read = (cells: Cells, at: string): Facts => {
    const known: Record<string, Known> = {};
    for (const [id, { text, source }] of Object.entries(cells)) {
      if (text.trim() === '') continue;
      const fact = facts.find((one) => one.id === id);
      const value = fact ? readFact(fact, text) : { problem: `“${id}” is nothing that this model can have.` };
      if ('problem' in value) problems[`${at}facts.${id}`] = value.problem;
      else known[id] = { value: value.value, source: source.trim() };
    }
    return known;
  };
  const model: ShelfModel = {
    name: draft.name.trim(),
    family: draft.family,
    facts: read(draft.cells, ''),
    variants: draft.variants.map(({ name, tell, cells }, i) => ({
      name: name.trim(),
      tell: tell.trim(),
      facts: read(cells, `variants[${i}].`),
    })),
    traps: draft.traps.map(({ about, say, source }) => ({ about, say: say.trim(), source: source.trim() })),
  };
  const all = { ...checkModel(model), ...problems };
  return Object.keys(all).length ? { problems: all } : { model };
}

/** What is wrong with a model; nothing when it may stand on the shelf. */
export function checkModel(model: unknown): Problems {
  try {
    shelfModelSchema.validateSync(model, { abortEarly: false, strict: true });
    return {};
  } catch (cause) {
    if (!(cause instanceof ValidationError)) throw cause;
    const inner = cause.inner.length ? cause.inner : [cause];
    return Object.fromEntries(inner.toReversed().map(({ path, message }) => [path || 'form', message]));
  }
}

/** A model as it can be typed over. */
export function draftOf(model: ShelfModel): Draft {
  const facts = factsOf(machineOf(model));
  const cellsOf = (known: Facts): Cells =>
    Object.fromEntries(
      Object.entries(known).map(([id, { value, source }]) => {
        const fact = facts.find((one) => one.id === id);
        return [id, { text: fact ? writeFact(fact, value) : String(value), source }];
      }),
    );
  const { name, family, variants, traps } = model;
  return {
    name,
    family,
    cells: cellsOf(model.facts),
    variants: variants.map((variant) => ({ ...variant, cells: cellsOf(variant.facts) })),
    traps,
  };
}

/** A new model to fill in; from a unit that was here, with the build as it was found. */
export function freshDraft(from?: { readonly name: string; readonly machine: Machine; readonly tag: number }): Draft {
  if (!from) return { name: '', family: 'claw-pole', cells: {}, variants: [], traps: [] };
  const machine = from.machine as unknown as Record<string, FactValue | undefined>;
  const { family } = from.machine;
  const { facts, size, usual: usualOf } = familyBy(family);
  const usual = usualOf(from.machine.ratedVolts, Number(machine[size.fact]), from.machine) as unknown as typeof machine;
  const source = `tag ${from.tag}`;
  const cells = facts.flatMap((fact): (readonly [string, Cell])[] => {
    const { id } = fact;
    // What was left as usual was not looked at.
    const looked = machine[id] !== usual[id] || id === 'ratedVolts' || id === size.fact;
    const value = machine[id];
    return looked && value !== undefined ? [[id, { text: writeFact(fact, value), source }]] : [];
  });
  return { name: from.name, family, cells: Object.fromEntries(cells), variants: [], traps: [] };
}

/** The sheet: one line a value. A variant's line names it; its `Told by` says how to tell it. */
export const shelfColumns = ['model', 'variant', 'what', 'value', 'source'] as const;
type Line = Readonly<Record<(typeof shelfColumns)[number], string>>;
const toldBy = 'Told by';
const familyLine = 'Family';
const trapLine = 'Trap: ';

export function writeShelfSheet(models: readonly ShelfModel[]): string {
  const lines = models.flatMap((model): Line[] => {
    const facts = factsOf(machineOf(model));
    const draft = draftOf(model);
    const of = (variant: string, cells: Cells): Line[] =>
      facts
        .filter(({ id }) => id in cells)
        .map(({ id, name }) => ({
          model: model.name,
          variant,
          what: name,
          value: cells[id]!.text,
          source: cells[id]!.source,
        }));
    const isA = { model: model.name, variant: '', what: familyLine, value: familyBy(model.family).name, source: '' };
    return [
      // What most are needn't be said.
      ...(model.family === 'claw-pole' ? [] : [isA]),
      ...of('', draft.cells),
      ...draft.variants.flatMap(({ name, tell, cells }) => [
        { model: model.name, variant: name, what: toldBy, value: tell, source: '' },
        ...of(name, cells),
      ]),
      ...draft.traps.map(({ about, say, source }) => ({
        model: model.name,
        variant: '',
        what: `${trapLine}${trapAbouts[about].toLowerCase()}`,
        value: say,
        source,
      })),
    ];
  });
  return Papa.unparse(lines, { columns: [...shelfColumns], newline: '\n' });
}

export interface SheetRead {
  readonly models: readonly ShelfModel[];
  /** What can't be read, each with its line or model. */
  readonly problems: readonly string[];
}

const same = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

/** Reads the sheet; a model with a bad line is left out whole, and said why. */
export function readShelfSheet(text: string): SheetRead {
  const { data, meta } = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, '').trim(), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (name) => name.trim().toLowerCase(),
  });
  const missing = shelfColumns.filter((name) => !meta.fields?.includes(name));
  if (missing.length)
    return {
      models: [],
      problems: [`The first line lacks ${missing.join(', ')}: it names ${shelfColumns.join(', ')}.`],
    };
  const lines = data.map((row, i) => ({
    ...(Object.fromEntries(shelfColumns.map((name) => [name, (row[name] ?? '').trim()])) as Line),
    at: i + 2,
  }));
  const names = lines.map(({ model }) => model).filter((name, i, all) => all.findIndex((n) => same(n, name)) === i);
  const read = names.map((name) => {
    const own = lines.filter((line) => same(line.model, name));
    const { draft, problems } = draftFrom(name, own);
    const made = problems.length ? undefined : modelOf(draft);
    if (made && 'model' in made) return { models: [made.model], problems };
    const told = made ? Object.values(made.problems).map((message) => `${name || 'No model'}: ${message}`) : [];
    return { models: [], problems: [...problems, ...told] };
  });
  return { models: read.flatMap(({ models }) => models), problems: read.flatMap(({ problems }) => problems) };
}

function draftFrom(
  name: string,
  lines: readonly (Line & { readonly at: number })[],
): { draft: Draft; problems: string[] } {
  const problems: string[] = [];
  const cells: Record<string, Cell> = {};
  const variants: { name: string; tell: string; cells: Record<string, Cell> }[] = [];
  const traps: Trap[] = [];
  // What the machine is comes first: it decides what else there can be.
  const said = lines.find(({ what, variant }) => !variant && same(what, familyLine))?.value;
  const family = said === undefined ? 'claw-pole' : familyNamed(said);
  if (!family)
    return {
      draft: { name, family: 'claw-pole', cells: {}, variants: [], traps: [] },
      problems: [`${name}: “${said}” is no family: ${ids.map((id) => families[id].name).join(', ')}.`],
    };
  const own = familyBy(family).facts;
  const named = (facts: readonly { id: string; name: string }[], what: string) =>
    facts.find((fact) => same(fact.id, what) || same(fact.name, what));
  for (const { variant, what, value, source } of lines) {
    const fact = variant ? undefined : named(own, what);
    if (fact) cells[fact.id] = { text: value, source };
  }
  const facts = factsOfDraft({ family, cells });
  for (const { variant, what, value, source, at } of lines) {
    const fact = named(facts, what);
    const of = variants.find((one) => same(one.name, variant)) ?? { name: variant, tell: '', cells: {} };
    if (variant && !variants.includes(of)) variants.push(of);
    if (what.toLowerCase().startsWith(trapLine.toLowerCase())) {
      const about = aboutOf(what.slice(trapLine.length));
      if (about) traps.push({ about, say: value, source });
      else problems.push(`Line ${at}: “${what}” is no trap: ${Object.values(trapAbouts).join(', ').toLowerCase()}.`);
    } else if (variant && same(what, toldBy)) of.tell = value;
    else if (same(what, familyLine)) continue;
    else if (!fact) problems.push(`Line ${at}: “${what}” is nothing that ${name || 'a model'} can have.`);
    else if (variant) of.cells[fact.id] = { text: value, source };
    else cells[fact.id] = { text: value, source };
  }
  return { draft: { name, family, cells, variants, traps }, problems };
}

const ids = Object.keys(families) as FamilyId[];
const familyNamed = (name: string): FamilyId | undefined =>
  ids.find((id) => same(id, name) || same(families[id].name, name));

const aboutOf = (name: string): TrapAbout | undefined =>
  (Object.keys(trapAbouts) as TrapAbout[]).find((about) => same(trapAbouts[about], name) || same(about, name));

/** A shelf file's models. */
export function readShelfFile(text: string): SheetRead {
  let raw: { format?: unknown; version?: unknown; models?: unknown };
  try {
    raw = JSON.parse(text.replace(/^\uFEFF/, '')) as typeof raw;
  } catch {
    return { models: [], problems: ['This is no JSON.'] };
  }
  if (raw?.format !== 'refectum-shelf' || raw.version !== 1 || !Array.isArray(raw.models))
    return { models: [], problems: ['This is no shelf file of version 1: see /api/schema/shelf.'] };
  const nameOf = (model: unknown): string => {
    const name = (model as { name?: unknown } | null)?.name;
    return typeof name === 'string' ? name : '';
  };
  const models: ShelfModel[] = [];
  const problems: string[] = [];
  for (const [i, model] of (raw.models as readonly unknown[]).entries()) {
    const name = nameOf(model);
    const called = name || `Model ${i + 1}`;
    const found = Object.entries(checkModel(model));
    if (models.some((one) => same(one.name, name)))
      problems.push(`${called}: it stands in this file twice, the first one counts.`);
    else if (found.length) problems.push(...found.map(([path, message]) => `${called}: ${path}: ${message}`));
    else models.push(model as ShelfModel);
  }
  return { models, problems };
}

export const writeShelfFile = (models: readonly ShelfModel[]): string =>
  `${JSON.stringify({ format: 'refectum-shelf', version: 1, models }, null, 2)}\n`;

/** Either format, by how it begins. */
export const readShelf = (text: string): SheetRead =>
  /^\uFEFF?\s*[{[]/.test(text) ? readShelfFile(text) : readShelfSheet(text);
