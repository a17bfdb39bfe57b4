import type { RequestEvent } from '@sveltejs/kit';
import { answered, tagOf } from '$lib/server/answer.ts';
import { vehicleLines } from '$lib/report.ts';
import { assessJobHere, assessVehicleHere } from '$lib/server/assess.ts';
import { findJob } from '$lib/server/jobs.ts';
import { picturesToPrint } from '$lib/server/pictures.ts';
import { reportPdf } from '$lib/server/report-pdf.ts';
import { standLines } from '$lib/server/stand-lines.ts';

export const GET = async (event: RequestEvent) => {
  const job = await answered(() => findJob(event.locals.shop.id, tagOf(event)));
  const vehicle = vehicleLines(job, assessVehicleHere(job));
  const pdf = await reportPdf(
    job,
    assessJobHere(job),
    vehicle,
    standLines(job),
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
