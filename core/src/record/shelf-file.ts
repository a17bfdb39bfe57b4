import { array, type InferType, mixed, object, string, ValidationError } from 'yup';
import { families, familyBy } from '../machines/index.ts';
import {
  factsOf,
  fitsFact,
  type Facts,
  machineOf,
  type ShelfModel,
  type TrapAbout,
  trapAbouts,
} from '../shelf/index.ts';
import { machineSchema } from './machine.ts';

/** The version this program writes; it reads no other. */
export const shelfFileVersion = 1;

export const longestSource = 160;

const words = (what: string, most: number) =>
  string().trim().required(`${what} is missing`).max(most, `${what}: at most ${most} characters`);

/** What is wrong with facts, each with the path of its fact. */
function problemsOf(facts: unknown, model: Pick<ShelfModel, 'family' | 'facts'>): { id: string; message: string }[] {
  const known = factsOf(machineOf(model));
  return Object.entries((facts ?? {}) as Record<string, unknown>).flatMap(([id, given]) => {
    const fact = known.find((one) => one.id === id);
    if (!fact) return [{ id, message: `“${id}” is nothing that this model can have` }];
    const { value, source } = (given ?? {}) as Record<string, unknown>;
    if (!fitsFact(fact, value)) return [{ id, message: `${fact.name}: ${JSON.stringify(value)} can’t be its value` }];
    if (typeof source !== 'string' || source.trim() === '')
      return [{ id, message: `${fact.name}: say where the value comes from` }];
    if (source.length > longestSource)
      return [{ id, message: `${fact.name}: its source has at most ${longestSource} characters` }];
    return [];
  });
}

const factsSchema = () => mixed<Facts>().required('the facts are missing: {} is enough');

/** Whether the machine that facts describe can be; its problems under the paths of its facts. */
function machineProblems(model: ShelfModel, variant: number | undefined): { path: string; message: string }[] {
  const at = variant === undefined ? '' : `variants[${variant}].`;
  try {
    machineSchema.validateSync(machineOf(model, variant === undefined ? undefined : model.variants[variant]), {
      abortEarly: false,
      strict: true,
    });
    return [];
  } catch (cause) {
    if (!(cause instanceof ValidationError)) throw cause;
    return (cause.inner.length ? cause.inner : [cause]).map(({ path, message }) => ({
      path: `${at}${path ? `facts.${path}` : 'facts'}`,
      message,
    }));
  }
}

/** A model on the shelf. Every value has a source; a variant only what differs. */
export const shelfModelSchema = object({
  name: words('The model’s name', 80),
  family: mixed<ShelfModel['family']>()
    .oneOf(Object.keys(families) as ShelfModel['family'][], 'no such family: ${value}')
    .required('the family is missing'),
  facts: factsSchema(),
  variants: array(
    object({
      name: words('The variant’s name', 60),
      tell: words('How to tell it', 200),
      facts: factsSchema(),
    }).noUnknown('unknown field: ${unknown}'),
  )
    .max(12, 'at most 12 variants')
    .required(),
  traps: array(
    object({
      about: mixed<TrapAbout>()
        .oneOf(Object.keys(trapAbouts) as TrapAbout[], 'no such kind of trap: ${value}')
        .required('What is the trap about?'),
      say: words('What to say', 240),
      source: words('Where it comes from', longestSource),
    }).noUnknown('unknown field: ${unknown}'),
  )
    .max(20, 'at most 20 traps')
    .required(),
})
  .noUnknown('unknown field: ${unknown}')
  .test('facts', function (given) {
    const model = given as ShelfModel;
    if (!(model.family in families) || !model.facts || !Array.isArray(model.variants)) return true;
    const at = (path: string) => (this.path ? `${this.path}.${path}` : path);
    const own = problemsOf(model.facts, model).map(({ id, message }) => ({ path: `facts.${id}`, message }));
    const family = familyBy(model.family);
    const size = family.facts.find(({ id }) => id === family.size.fact)!;
    const missing = ['ratedVolts', family.size.fact]
      .filter((id) => !(id in model.facts))
      .map((id) => ({
        path: `facts.${id}`,
        message: `Rated volts and ${size.name.toLowerCase()} are needed: they stand on the plate`,
      }));
    const variants = model.variants.flatMap((variant, i) =>
      problemsOf(variant.facts, model).map(({ id, message }) => ({ path: `variants[${i}].facts.${id}`, message })),
    );
    const first = [...own, ...missing, ...variants];
    const problems = first.length
      ? first
      : [machineProblems(model, undefined), ...model.variants.map((_, i) => machineProblems(model, i))].flat();
    if (problems.length === 0) return true;
    return new ValidationError(problems.map(({ path, message }) => this.createError({ path: at(path), message })));
  });

/** A whole shelf in the open. */
export const shelfFileSchema = object({
  format: mixed<'refectum-shelf'>()
    .oneOf(['refectum-shelf'], 'must be refectum-shelf — got ${value}')
    .required('this is no shelf: its format is missing'),
  version: mixed<1>()
    .oneOf([shelfFileVersion], `only version ${shelfFileVersion} is read here — got \${value}`)
    .required(),
  models: array(shelfModelSchema).max(2000, 'at most 2000 models at once').required('the models are missing'),
}).noUnknown('unknown field: ${unknown}');

export type ShelfFile = InferType<typeof shelfFileSchema>;
