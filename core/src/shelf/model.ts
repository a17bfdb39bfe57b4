import { type FactValue, familyBy, type Machine } from '../machines/index.ts';
import { formatQuantity } from '../quantity/index.ts';
import type { Prices } from '../verdict/index.ts';
import { factsOf, type ShelfFact, writeFact } from './facts.ts';

/** A value, and where it came from: a plate, a maker's sheet, a unit measured here. */
export interface Known {
  readonly value: FactValue;
  readonly source: string;
}
export type Facts = Readonly<Record<string, Known>>;

/** What a unit of this model may be instead, and how to tell. */
export interface Variant {
  readonly name: string;
  readonly tell: string;
  readonly facts: Facts;
}

export const trapAbouts = {
  rating: 'Rating',
  stator: 'Stator',
  'field-circuit': 'Field circuit',
  'brush-holder': 'Brush holder',
  direction: 'Direction',
  other: 'Take care',
} as const;
export type TrapAbout = keyof typeof trapAbouts;

/** Something that makes one unit pass for another. */
export interface Trap {
  readonly about: TrapAbout;
  readonly say: string;
  readonly source: string;
}

/** What the shop knows of a model. */
export interface ShelfModel {
  readonly name: string;
  readonly family: Machine['family'];
  readonly facts: Facts;
  readonly variants: readonly Variant[];
  readonly traps: readonly Trap[];
}

const valuesOf = (facts: Facts): Record<string, FactValue> =>
  Object.fromEntries(Object.entries(facts).map(([id, { value }]) => [id, value]));

/**
 * The machine that a model describes, or one of its variants; what isn't known of it is as usual for its rating.
 * Not checked: `machineSchema` says whether it can be.
 */
export function machineOf({ family, facts }: Pick<ShelfModel, 'family' | 'facts'>, variant?: Variant): Machine {
  const { usual, size, facts: own } = familyBy(family);
  const given = { ...valuesOf(facts), ...(variant && valuesOf(variant.facts)) };
  const machine = usual(
    given.ratedVolts === 24 ? 24 : 12,
    Number(given[size.fact] ?? size.usual),
    given as Partial<Machine>,
  );
  const known = own.filter(({ id }) => given[id] !== undefined).map(({ id }) => [id, given[id]]);
  return { ...machine, ...Object.fromEntries(known) } as Machine;
}

/** Every build of a model with its machine: as it is named, and each variant. */
export const buildsOf = (model: Pick<ShelfModel, 'name' | 'family' | 'facts' | 'variants'>) => [
  { name: model.variants.length ? `${model.name}, first build` : model.name, machine: machineOf(model) },
  ...model.variants.map((variant) => ({ name: variant.name, machine: machineOf(model, variant) })),
];

/** What the model's parts cost, as the verdict reckons with it. */
export function pricesOf({ facts }: Pick<ShelfModel, 'facts'>): Prices {
  const prices = Object.entries(facts).filter(([id]) => id.startsWith('price.'));
  const amount = (id: string) => facts[`price.${id}`]?.value as number | undefined;
  const whole = ['exchange', 'core'];
  const items = prices.map(([id, { value }]) => [id.slice('price.'.length), { price: Number(value) }] as const);
  const [exchange, core] = whole.map(amount);
  return {
    ...(exchange === undefined ? {} : { exchange }),
    ...(core === undefined ? {} : { core }),
    items: Object.fromEntries(items.filter(([id]) => !whole.includes(id))),
  };
}

export interface Limit {
  readonly least: Known | undefined;
  readonly most: Known | undefined;
}

/** The published limit of a check; undefined when there is none. */
export function limitOf({ facts }: Pick<ShelfModel, 'facts'>, check: string): Limit | undefined {
  const [least, most] = [facts[`limit.${check}.least`], facts[`limit.${check}.most`]];
  return least || most ? { least, most } : undefined;
}

export interface Warning {
  readonly about: TrapAbout;
  readonly say: string;
}

/** By what two models of one frame are told apart, and what the difference is about. */
const told: Readonly<Record<string, TrapAbout>> = {
  ratedVolts: 'rating',
  ratedAmps: 'rating',
  ratedKilowatts: 'rating',
  connection: 'stator',
  statorPairOhms: 'stator',
  regulatorSide: 'field-circuit',
  direction: 'direction',
};

/** What to say when a unit of this model comes in: its traps, its variants, and what looks like it. */
export function warningsOf(model: ShelfModel, shelf: readonly ShelfModel[]): readonly Warning[] {
  const variants = model.variants.map(({ name, tell }): Warning => ({
    about: 'stator',
    say: `There is another: ${name}. ${tell}`,
  }));
  const frame = frameOf(model);
  const alike = shelf.filter((other) => other.name !== model.name && frame !== '' && frameOf(other) === frame);
  return [...model.traps.map(({ about, say }) => ({ about, say })), ...variants, ...alike.flatMap(differing(model))];
}

const frameOf = ({ facts }: ShelfModel): string => String(facts.frame?.value ?? '').toLowerCase();

const differing =
  (model: ShelfModel) =>
  (other: ShelfModel): readonly Warning[] => {
    const facts = factsOf(machineOf(model));
    const text = (fact: ShelfFact, { facts: known }: ShelfModel) => {
      const given = known[fact.id];
      if (!given) return undefined;
      return 'unit' in fact.kind ? formatQuantity(Number(given.value), fact.kind.unit) : writeFact(fact, given.value);
    };
    const differences = facts
      .filter(({ id }) => id in told)
      .flatMap((fact) => {
        const [here, there] = [text(fact, model), text(fact, other)];
        return here && there && here !== there ? [{ fact, here, there }] : [];
      });
    if (differences.length === 0) return [];
    const list = differences.map(({ fact, here, there }) => `${fact.name.toLowerCase()} ${there} there, ${here} here`);
    return [
      {
        about: told[differences[0]!.fact.id]!,
        say: `${other.name} has the same frame: ${list.join('; ')}.`,
      },
    ];
  };
