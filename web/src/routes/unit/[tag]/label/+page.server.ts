import { toSVG } from 'bwip-js/node';
import { tagCode } from '$lib/job.ts';
import { labelSize } from '$lib/labels.ts';
import { reachableOrigin } from '$lib/server/reach.ts';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ parent, url }) => {
  const { job } = await parent();
  return {
    size: labelSize(url.searchParams.get('size') ?? undefined),
    barcode: toSVG({ bcid: 'code128', text: tagCode(job.tag), height: 9, includetext: false, paddingwidth: 10 }),
    square: toSVG({ bcid: 'qrcode', text: `${reachableOrigin(url)}/unit/${job.tag}`, padding: 4 }),
  };
};
