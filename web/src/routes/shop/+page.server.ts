import { fail } from '@sveltejs/kit';
import { ValidationError } from 'yup';
import { instrumentSchema } from '$lib/instruments.ts';
import { type MeterDraft, meterDraft, readMeter } from '$lib/meters.ts';
import { rulesSchema, standProfileSchema } from '$lib/rules.ts';
import { isId } from '$lib/server/answer.ts';
import { forgetInstrument, instrumentsOf, saveInstrument } from '$lib/server/instruments/shop.ts';
import { metersOf, saveMeter } from '$lib/server/meters.ts';
import { Refused } from '$lib/server/refused.ts';
import { database } from '$lib/server/db/connect.ts';
import { rulesOf, saveRules } from '$lib/server/shop.ts';
import { unlikeIn } from '$lib/server/unlike-share.ts';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals }) => ({
  person: locals.person!,
  meters: (await metersOf(locals.shop.id)).map((meter) => ({ ...meter, draft: meterDraft(meter) })),
  instruments: await instrumentsOf(locals.shop.id),
  rules: await rulesOf(locals.shop.id),
  ...(await unlikeIn(locals.shop.id, database())),
});

export const actions: Actions = {
  meter: async ({ request, locals }) => {
    const form = await request.formData();
    const text = (name: string) => String(form.get(name) ?? '');
    const draft: MeterDraft = {
      id: text('id').slice(0, 60),
      name: text('name'),
      description: text('description'),
      diode: text('diode'),
      ohms: text('ohms'),
      volts: text('volts'),
      voltsInput: text('voltsInput'),
      bandwidth: text('bandwidth'),
      leads: text('leads'),
      leadsSpread: text('leadsSpread'),
      calibratedOn: text('calibratedOn'),
      everyMonths: text('everyMonths'),
      retired: form.get('retired') === 'on',
    };
    const read = readMeter(draft);
    if ('problems' in read) return fail(422, { draft, problems: read.problems });
    try {
      await saveMeter(locals.shop.id, read.meter);
    } catch (cause) {
      if (!(cause instanceof Refused)) throw cause;
      return fail(cause.status, { draft, problems: { form: cause.message } });
    }
    return { saved: read.meter.known.name };
  },
  stand: async ({ request, locals }) => {
    const given = Object.fromEntries(
      [...(await request.formData())].map(([name, text]) => [name, String(text).replace(',', '.')]),
    );
    try {
      await saveRules(locals.shop.id, { stand: await standProfileSchema.validate(given, { abortEarly: false }) });
      return { standSaved: true };
    } catch (cause) {
      if (!(cause instanceof ValidationError)) throw cause;
      const all = cause.inner.length ? cause.inner : [cause];
      return fail(422, {
        stand: given,
        standProblems: Object.fromEntries(all.map(({ path, message }) => [path ?? '', message])),
      });
    }
  },
  instrument: async ({ request, locals }) => {
    const form = await request.formData();
    const text = (name: string) => String(form.get(name) ?? '').slice(0, 300);
    const fields = ['id', 'name', 'kind', 'host', 'port', 'meter'];
    const entry = Object.fromEntries(fields.map((name) => [name, text(name)]));
    try {
      const read = await instrumentSchema.validate(entry, { abortEarly: false });
      const meter = read.kind === 'multimeter' ? read.meter : null;
      await saveInstrument(locals.shop.id, locals.person!.id, { ...read, meter });
      return { instrumentSaid: `${read.name} may be reached at ${read.host}, port ${read.port}.` };
    } catch (cause) {
      if (cause instanceof Refused) return fail(cause.status, { entry, problems: { form: cause.message } });
      if (!(cause instanceof ValidationError)) throw cause;
      const all = cause.inner.length ? cause.inner : [cause];
      return fail(422, {
        entry,
        problems: Object.fromEntries(all.map(({ path, message }) => [path || 'form', message])),
      });
    }
  },
  forget: async ({ request, locals }) => {
    const id = String((await request.formData()).get('id') ?? '');
    if (isId(id)) await forgetInstrument(locals.shop.id, id);
    return { instrumentSaid: 'It is reached no more.' };
  },
  rules: async ({ request, locals }) => {
    const form = await request.formData();
    const said = { limits: form.getAll('limits').map(String), output: String(form.get('output') ?? '') };
    try {
      await saveRules(locals.shop.id, (await rulesSchema.validate(said, { strict: true })) as never);
    } catch (cause) {
      if (!(cause instanceof ValidationError)) throw cause;
      return fail(422, { rulesProblem: cause.message });
    }
    return { rulesSaved: true };
  },
};
