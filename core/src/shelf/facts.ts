import { type Choice, type Fact, type FactValue, type Machine, familyOf, subjectOf } from '../machines/index.ts';
import { parseQuantity } from '../quantity/index.ts';
import { findingsOf } from '../checks/index.ts';

/** Beside what describes the machine itself: what else is read off it, and what it is bought for. */

export type FactGroup = 'machine' | 'plate' | 'limits' | 'prices';
export interface ShelfFact extends Fact {
  readonly group: FactGroup;
}

export const factGroups: Readonly<Record<FactGroup, string>> = {
  machine: 'Ratings and build',
  plate: 'Frame, drive, connector',
  limits: 'Published limits',
  prices: 'Prices',
};

const named = (names: readonly string[]): readonly Choice[] => names.map((name) => ({ value: name, name }));
const pulley: ShelfFact = {
  id: 'pulley',
  name: 'Pulley',
  kind: { choices: named(['solid', 'one-way clutch', 'decoupler']) },
  group: 'plate',
};
const plate: readonly ShelfFact[] = [
  { id: 'frame', name: 'Frame', kind: { longest: 60 }, group: 'plate' },
  {
    id: 'direction',
    name: 'Direction',
    kind: { choices: named(['clockwise', 'counter-clockwise', 'either']) },
    group: 'plate',
  },
  { id: 'connector', name: 'Connector', kind: { longest: 60 }, group: 'plate' },
];

/** Every fact that can be known of a model whose machine is this one. */
export function factsOf(machine: Machine): readonly ShelfFact[] {
  const { items, checks } = subjectOf(machine);
  const limits = checks
    .filter((check) => findingsOf(check).length === 0)
    .flatMap(({ id, name, unit }) =>
      (['least', 'most'] as const).map((end): ShelfFact => ({
        id: `limit.${id}.${end}`,
        name: `${name}, ${end}`,
        kind: { unit },
        group: 'limits',
      })),
    );
  const price = (id: string, name: string): ShelfFact => ({
    id: `price.${id}`,
    name: `${name}, price`,
    kind: { money: true },
    group: 'prices',
  });
  return [
    ...familyOf(machine).facts.map((fact): ShelfFact => ({ ...fact, group: 'machine' })),
    ...plate,
    ...(familyOf(machine).generates ? [pulley] : []),
    ...limits,
    ...items.map(({ id, name }) => price(id, name)),
    price('exchange', 'Exchange or new unit'),
    price('core', 'Worth of the core'),
  ];
}

type Read = { readonly value: FactValue } | { readonly problem: string };

/**
 * A fact's value as somebody typed it, in a form or a sheet.
 *
 * @example readFact({ kind: { unit: 'ohms' }, … }, '120m') // { value: 0.12 }
 * @example readFact({ kind: { choices: star or delta }, … }, 'Y') // { problem: 'Stator: “Y” is none of star, delta.' }
 */
export function readFact({ name, kind }: Fact, typed: string): Read {
  const text = typed.trim();
  if ('choices' in kind) {
    const same = (one: FactValue) => String(one).toLowerCase() === text.toLowerCase();
    const found = kind.choices.find((choice) => same(choice.value) || same(choice.name));
    return found
      ? { value: found.value }
      : { problem: `${name}: “${text}” is none of ${kind.choices.map((choice) => choice.name).join(', ')}.` };
  }
  if ('longest' in kind)
    return text.length <= kind.longest
      ? { value: text }
      : { problem: `${name}: at most ${kind.longest} characters, these are ${text.length}.` };
  if ('money' in kind) {
    const amount = Number(text.replace(',', '.'));
    return text !== '' && Number.isFinite(amount) && amount >= 0
      ? { value: amount }
      : { problem: `${name}: “${text}” is no amount: type one of at least 0, like 48 or 12.50.` };
  }
  const read = parseQuantity(text, kind.unit);
  if (read.kind === 'value') return { value: read.value };
  return { problem: `${name}: ${read.kind === 'refused' ? read.message : 'a number is needed, OL is none here.'}` };
}

/** A fact's value in words that `readFact` takes. */
export function writeFact({ kind }: Fact, value: FactValue): string {
  if ('choices' in kind) return kind.choices.find((choice) => choice.value === value)?.name ?? String(value);
  return String(value);
}

/** Whether a value is of the fact's kind. */
export function fitsFact({ kind }: Fact, value: unknown): value is FactValue {
  if ('choices' in kind) return kind.choices.some((choice) => choice.value === value);
  if ('longest' in kind) return typeof value === 'string' && value.length <= kind.longest;
  return typeof value === 'number' && Number.isFinite(value) && (!('money' in kind) || value >= 0);
}
