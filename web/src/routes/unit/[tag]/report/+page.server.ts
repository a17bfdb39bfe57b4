import { toSVG } from 'bwip-js/node';
import { tagCode } from '$lib/job.ts';
import { listPictures } from '$lib/server/pictures.ts';
import { report } from '$lib/server/reasoning/index.ts';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ parent }) => {
  const { job } = await parent();
  return {
    ...(await report(job)),
    pictures: (await listPictures(job.id)).filter(({ struck }) => !struck),
    barcode: toSVG({ bcid: 'code128', text: tagCode(job.tag), height: 9, includetext: false }),
  };
};
