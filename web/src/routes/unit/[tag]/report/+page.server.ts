import { toSVG } from 'bwip-js/node';
import { tagCode } from '$lib/job.ts';
import { vehicleLines } from '$lib/report.ts';
import { assessJobHere, assessVehicleHere } from '$lib/server/assess.ts';
import { listPictures } from '$lib/server/pictures.ts';
import { standLines } from '$lib/server/stand-lines.ts';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ parent }) => {
  const { job } = await parent();
  return {
    assessment: assessJobHere(job),
    stand: standLines(job),
    vehicle: vehicleLines(job, assessVehicleHere(job)),
    pictures: (await listPictures(job.id)).filter(({ struck }) => !struck),
    barcode: toSVG({ bcid: 'code128', text: tagCode(job.tag), height: 9, includetext: false }),
  };
};
