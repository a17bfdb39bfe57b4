import { error, json, type RequestEvent } from '@sveltejs/kit';
import { type AnyObjectSchema, type InferType, object, string, ValidationError } from 'yup';
import type { PictureEntry } from './pictures.ts';
import { Refused } from './refused.ts';

/** Reads a JSON body by its schema; what is wrong with it comes back field by field with status 422. */
export async function bodyOf<S extends AnyObjectSchema>(event: RequestEvent, schema: S): Promise<InferType<S>> {
  let raw: unknown;
  try {
    raw = await event.request.json();
  } catch {
    throw error(400, 'The body is not JSON.');
  }
  return answered(async () =>
    onlyOwn(event, await schema.noUnknown().validate(raw, { abortEarly: false, strict: true })),
  );
}

/** What somebody else wrote at this screen waits until they sign in again: nobody writes in another's name. */
function onlyOwn<T extends { technician?: unknown }>({ locals }: RequestEvent, body: T): T {
  if ('technician' in body && body.technician !== locals.person?.id)
    throw error(401, 'Somebody else wrote this: they must sign in here to send it.');
  return body;
}

/** Whether a text is an id that the database will take. */
export const isId = (text: string): boolean => /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(text);

export interface FormProblems {
  readonly problems: Readonly<Record<string, string>>;
}

/** Reads a form by its schema; what is wrong comes back by field. Secrets are not sent back. */
export async function formOf<S extends AnyObjectSchema>(
  event: Pick<RequestEvent, 'request'>,
  schema: S,
): Promise<{ readonly values: InferType<S> } | FormProblems> {
  const raw = Object.fromEntries(await event.request.formData());
  try {
    return { values: await schema.validate(raw, { abortEarly: false, stripUnknown: true }) };
  } catch (cause) {
    if (!(cause instanceof ValidationError)) throw cause;
    const all = cause.inner.length ? cause.inner : [cause];
    return { problems: Object.fromEntries(all.toReversed().map(({ path, message }) => [path || 'form', message])) };
  }
}

/** Does it, and turns a refusal into its status and sentence; what a schema says against it comes back field by field. */
export async function answered<T>(act: () => Promise<T>): Promise<T> {
  try {
    return await act();
  } catch (cause) {
    if (cause instanceof Refused) throw error(cause.status, cause.message);
    if (!(cause instanceof ValidationError)) throw cause;
    const problems = (cause.inner.length ? cause.inner : [cause]).map((p) => `${p.path || 'body'}: ${p.message}`);
    throw error(422, problems.join('; '));
  }
}

export const done = () => json({ done: true });

/** The largest whole number of the database's column. */
const highestTag = 2 ** 31 - 1;

export function tagOf(event: RequestEvent): number {
  const tag = Number(event.params.tag);
  if (!Number.isInteger(tag) || tag < 1 || tag > highestTag)
    throw error(404, `“${event.params.tag}” is no tag number.`);
  return tag;
}

const pictureSchema = object({
  id: string().uuid('must be a UUID').required(),
  caption: string().trim().max(120, 'at most 120 characters').default(''),
});

/** Reads a picture that came as a form. */
export async function pictureOf(event: RequestEvent): Promise<PictureEntry> {
  const form = await event.request.formData().catch(() => {
    throw error(400, 'The picture did not come through whole: send it again.');
  });
  const file = form.get('picture');
  if (!(file instanceof File) || file.size === 0) throw error(422, 'There is no picture in what was sent.');
  try {
    const named = await pictureSchema.validate({ id: form.get('id'), caption: form.get('caption') ?? '' });
    return { ...named, sent: new Uint8Array(await file.arrayBuffer()) };
  } catch (cause) {
    if (cause instanceof ValidationError) throw error(422, cause.message);
    throw cause;
  }
}
