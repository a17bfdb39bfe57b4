import { beforeAndAfter, workLines } from '../rounds.ts';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import type { Assessment } from '@refectum/core/assess';
import { courseNames } from '@refectum/core/verdict';
import { toSVG } from 'bwip-js/node';
import pdfmake from 'pdfmake';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import { dayAndTimeOf, daysBeside, timeOf } from '../dates.ts';
import { type Job, overrode, tagCode } from '../job.ts';
import {
  findingsLines,
  identityLines,
  pairLines,
  readingsAside,
  readingsHeading,
  readsLikeLine,
  reportCautions,
  type VehicleLines,
} from '../report.ts';

const fonts = join(dirname(createRequire(import.meta.url).resolve('@expo-google-fonts/ibm-plex-sans/package.json')));
const face = (name: string) => join(fonts, name, `IBMPlexSans_${name}.ttf`);

pdfmake.setFonts({
  Plex: {
    normal: face('400Regular'),
    bold: face('600SemiBold'),
    italics: face('400Regular_Italic'),
    bolditalics: face('600SemiBold_Italic'),
  },
});
pdfmake.setUrlAccessPolicy(() => false);
pdfmake.setLocalAccessPolicy((path: string) => path.startsWith(fonts));

const percent = (p: number): string => `${Math.round(100 * p)}\u202f%`;
const heading = (text: string): Content => ({ text, bold: true, fontSize: 12, margin: [0, 10, 0, 3] });
const pairs = (rows: readonly (readonly [string, string])[]): Content => ({
  layout: 'noBorders',
  table: { widths: [95, '*'], body: rows.map(([name, value]) => [name, value]) },
});

/** Pictures with what they show: the first of so many. */
export interface PrintedPictures {
  readonly printed: readonly { readonly caption: string; readonly jpeg: Buffer }[];
  readonly of: number;
}

/** The report as a PDF: identity, decision, findings, every reading, what remains, cautions. */
export async function reportPdf(
  job: Job,
  assessment: Assessment,
  vehicle: VehicleLines | undefined,
  stand: readonly string[],
  pictures: PrintedPictures,
  shopHeading: string,
): Promise<Uint8Array> {
  const definition: TDocumentDefinitions = {
    info: { title: `Test report, tag ${job.tag}` },
    pageSize: 'A4',
    pageMargins: [42, 46, 42, 46],
    defaultStyle: { font: 'Plex', fontSize: 9.5 },
    footer: (page, pages) => ({
      text: `Tag ${job.tag}, page ${page} of ${pages}`,
      alignment: 'center',
      fontSize: 8.5,
      margin: [0, 14, 0, 0],
    }),
    content: [
      { text: shopHeading },
      {
        columns: [
          { text: `Test report, tag ${job.tag}`, bold: true, fontSize: 18 },
          { svg: toSVG({ bcid: 'code128', text: tagCode(job.tag), height: 9 }), width: 120 },
        ],
      },
      heading('Unit'),
      pairs([
        ...identityLines(job),
        ...readsLikeLine(assessment),
        ['Checked in', `${dayAndTimeOf(job.checkedInAt)}, ${job.technician}`],
      ]),
      ...(vehicle
        ? [heading('On the vehicle'), { ul: vehicle.readings.map(({ text }) => text) }, vehicle.conclusion]
        : []),
      ...(stand.length ? [heading('On the run stand'), { ul: [...stand] }] : []),
      heading('Decision'),
      decisionText(job, assessment),
      heading('Findings'),
      pairs(findingsLines(assessment).map(({ word, names }) => [word, names] as const)),
      heading(readingsHeading(job)),
      ...readingsBlock(job, assessment),
      ...worksBlock(job),
      ...picturesBlock(pictures),
      heading('Suspects that remain'),
      {
        ul: [
          ...assessment.suspects
            .filter((s) => s.chance >= 0.02)
            .map((s) => `${s.name}: ${percent(s.chance)}${s.severity ? `, ${s.severity}` : ''}`),
          `nothing wrong: ${percent(assessment.sound)}`,
        ],
      },
      ...(assessment.hidden.length
        ? [heading('What these readings could not show'), { ul: [...assessment.hidden] } satisfies Content]
        : []),
      heading('Courses weighed'),
      coursesTable(assessment),
      { ul: [...reportCautions], margin: [0, 14, 0, 0], fontSize: 8.5 },
    ],
  };
  return new Uint8Array(await pdfmake.createPdf(definition).getBuffer());
}

/** What was done, and every check of the last round beside what it showed before. */
function worksBlock(job: Job): Content[] {
  if (job.works.length === 0) return [];
  const head = ['Check', 'Before', 'After'].map((text) => ({ text, bold: true }));
  const rows = beforeAndAfter(job).map(({ name, before, after }) => [name, before, after]);
  return [
    heading('Work, before and after'),
    { ul: [...workLines(job)] },
    { layout: 'lightHorizontalLines', table: { headerRows: 1, widths: ['*', 110, 110], body: [head, ...rows] } },
  ];
}

/** Three in a row, each with what it shows. */
function picturesBlock({ printed, of }: PrintedPictures): Content[] {
  if (printed.length === 0) return [];
  const cells = printed.map(({ caption, jpeg }): Content => ({
    stack: [
      { image: `data:image/jpeg;base64,${jpeg.toString('base64')}`, fit: [160, 120] },
      { text: caption, fontSize: 8.5 },
    ],
    margin: [0, 2, 0, 6],
  }));
  const rows = Array.from({ length: Math.ceil(cells.length / 3) }, (_, i) =>
    [0, 1, 2].map((j) => cells[3 * i + j] ?? { text: '' }),
  );
  const told = of > printed.length ? [`${printed.length} of ${of}; the others are kept with the unit.`] : [];
  return [heading('Pictures'), { layout: 'noBorders', table: { widths: ['*', '*', '*'], body: rows } }, ...told];
}

function decisionText(job: Job, assessment: Assessment): Content {
  const decision = job.verdicts.at(-1);
  if (!decision) return `None yet. ${assessment.verdict.reason}`;
  const { course, reason, technician, at } = decision;
  const told = [technician, dayAndTimeOf(at), overrode(decision)].filter(Boolean).join(', ');
  return { text: [{ text: courseNames[course], bold: true }, `: ${reason} (${told})`] };
}

function readingsBlock(job: Job, assessment: Assessment): Content[] {
  if (assessment.readings.length === 0) return ['No reading was taken.'];
  const taken = new Map(job.readings.map((reading) => [reading.id, reading]));
  const head = ['Time', 'Check', 'Reading', 'A sound unit reads', 'Judged'].map((text) => ({ text, bold: true }));
  const days = daysBeside(assessment.readings.map(({ id }) => taken.get(id)!.at));
  const rows = assessment.readings.map(({ id, name, shown, net, then, expected, word, aside, repeat }, i) => [
    [days[i], timeOf(taken.get(id)!.at)].filter(Boolean).join('\n'),
    name,
    [shown, net, then, ...pairLines(taken.get(id))].filter(Boolean).join('\n'),
    expected || '–',
    [word, aside, repeat].filter(Boolean).join('\n'),
  ]);
  return [
    {
      layout: 'lightHorizontalLines',
      table: { headerRows: 1, widths: [52, '*', 118, 92, 76], body: [head, ...rows] },
    },
    { text: readingsAside(job, assessment), margin: [0, 3, 0, 0] },
  ];
}

function coursesTable({ verdict }: Assessment): Content {
  const head = ['Course', 'Parts and labour', 'Minutes', 'Something stays wrong', 'Note'].map((text) => ({
    text,
    bold: true,
  }));
  const rows = verdict.courses.map((course) => [
    course.id === verdict.recommended ? { text: `${course.name} (recommended)`, bold: true } : course.name,
    course.cost === undefined ? 'price unknown' : course.cost.toFixed(2),
    String(course.minutes),
    percent(course.risk),
    [course.actions.map((action) => `${action.kind}: ${action.name}`).join('; '), course.barred]
      .filter(Boolean)
      .join(' '),
  ]);
  return {
    layout: 'lightHorizontalLines',
    table: { headerRows: 1, widths: [95, 70, 45, 75, '*'], body: [head, ...rows] },
  };
}
