import { lazy, mixed, object, type Schema } from 'yup';
import { type Fact, type FamilyId, families, familyBy, type Machine } from '../machines/index.ts';
import { units } from '../quantity/index.ts';
import { ranged } from './ranged.ts';

/** A machine at the door: what its family says of its facts, as Yup and as JSON Schema. */

function fieldOf({ name, kind, optional, unsaid }: Fact): Schema {
  if ('choices' in kind) {
    const values = kind.choices.map(({ value }) => value);
    const said = values.length === 2 ? values.join(' or ') : `one of ${values.join(', ')}`;
    const chosen = mixed().oneOf(values, `${name} must be ${said} — got \${value}`);
    return unsaid === undefined ? chosen.required(`${name} is missing`) : chosen;
  }
  if (!('unit' in kind)) throw new RangeError(`no machine is described by “${name}”`);
  const { least = 0, most = units[kind.unit].most } = kind;
  const field = ranged({ name, symbol: units[kind.unit].symbol, least, most });
  return optional ? field.optional().default(undefined) : field;
}

const schemaOf = (id: FamilyId): Schema => {
  const { facts, rules } = familyBy(id);
  const fields = Object.fromEntries(facts.map((fact) => [fact.id, fieldOf(fact)]));
  return rules.reduce(
    (schema, { name, holds, say }) => schema.test(name, say, (machine) => holds(machine as unknown as Machine)),
    object({ family: mixed<FamilyId>().oneOf([id]).required(), ...fields }).noUnknown('unknown field: ${unknown}'),
  );
};

const ids = Object.keys(families) as FamilyId[];
const schemas = Object.fromEntries(ids.map((id) => [id, schemaOf(id)])) as Record<FamilyId, Schema>;
const noFamily = mixed<Machine>()
  .required('the machine is missing')
  .test('family', `family must be one of ${ids.join(', ')}`, () => false);

/** Any machine, by the facts of its family. */
export const machineSchema = lazy((given: unknown) => {
  const id = (given as { family?: FamilyId } | undefined)?.family;
  return (id && id in schemas ? schemas[id] : noFamily) as Schema<Machine>;
});

const jsonOf = ({ name: title, kind, unsaid }: Fact): Record<string, unknown> => {
  if ('choices' in kind)
    return {
      title,
      enum: kind.choices.map(({ value }) => value),
      ...(unsaid === undefined ? {} : { default: unsaid }),
    };
  if (!('unit' in kind)) throw new RangeError(`no machine is described by “${title}”`);
  const { symbol, most } = units[kind.unit];
  return {
    title: symbol ? `${title}, ${symbol}` : title,
    type: 'number',
    minimum: kind.least ?? 0,
    maximum: kind.most ?? most,
  };
};

/** The same as JSON Schema. */
export const machineJsonSchema = {
  oneOf: ids.map((id) => {
    const { facts } = familyBy(id);
    return {
      title: familyBy(id).name,
      type: 'object',
      properties: { family: { const: id }, ...Object.fromEntries(facts.map((fact) => [fact.id, jsonOf(fact)])) },
      required: [
        'family',
        ...facts.filter(({ optional, unsaid }) => !optional && unsaid === undefined).map((fact) => fact.id),
      ],
      additionalProperties: false,
    };
  }),
};
