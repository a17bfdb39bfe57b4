import { toSVG } from 'bwip-js/node';
import { fail } from '@sveltejs/kit';
import { isId, tagOf } from '$lib/server/answer.ts';
import { findJob } from '$lib/server/jobs/index.ts';
import { listPictures, makePictureCode, strikePicture } from '$lib/server/pictures.ts';
import { isReachable, reachableOrigin } from '$lib/server/reach.ts';
import { Refused } from '$lib/server/refused.ts';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ parent }) => {
  const { job } = await parent();
  return { pictures: await listPictures(job.id), reachable: isReachable() };
};

export const actions: Actions = {
  code: async (event) => {
    if (!isReachable()) return fail(409, { problem: 'No phone reaches this machine: start it with --lan.' });
    const { id } = await findJob(event.locals.shop.id, tagOf(event as never));
    const { code, until } = await makePictureCode(id, event.locals.person!.id);
    const address = `${reachableOrigin(event.url)}/p/${code}`;
    return { address, until, square: toSVG({ bcid: 'qrcode', text: address, padding: 4 }) };
  },
  strike: async (event) => {
    const form = await event.request.formData();
    const picture = String(form.get('picture') ?? '');
    const strike = form.get('strike');
    try {
      const { id, tag } = await findJob(event.locals.shop.id, tagOf(event as never));
      if (!isId(picture)) throw new Refused(404, 'There is no such picture of this unit.');
      if (strike !== 'out' && strike !== 'back in')
        throw new Refused(422, 'Out or back in? That did not come through: reload the page.');
      await strikePicture(id, tag, event.locals.person!.id, { picture, out: strike === 'out' });
    } catch (cause) {
      if (!(cause instanceof Refused)) throw cause;
      return fail(cause.status, { problem: cause.message });
    }
    return {};
  },
};
