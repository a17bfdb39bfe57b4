import type { RequestEvent } from '@sveltejs/kit';
import { answered, tagOf } from '$lib/server/answer.ts';
import { findJob } from '$lib/server/jobs/index.ts';
import { picturesToPrint } from '$lib/server/pictures.ts';
import { report } from '$lib/server/reasoning/index.ts';
import { reportPdf } from '$lib/server/report-pdf.ts';

export const GET = async (event: RequestEvent) => {
  const job = await answered(() => findJob(event.locals.shop.id, tagOf(event)));
  const { assessment, stand, vehicle } = await report(job);
  const pdf = await reportPdf(
    job,
    assessment,
    vehicle,
    stand,
    await picturesToPrint(job.id),
    event.locals.shop.heading,
  );
  return new Response(pdf.buffer as ArrayBuffer, {
    headers: {
      'content-type': 'application/pdf',
      'content-disposition': `inline; filename="report-${job.tag}.pdf"`,
    },
  });
};
