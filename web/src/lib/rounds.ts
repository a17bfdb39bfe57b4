import { outcomeText } from '@refectum/core/assess';
import { subjectOf } from '@refectum/core/machines';
import { dayAndTimeOf } from './dates.ts';
import { type Job, standing, type TakenWork } from './job.ts';

/** One check before the work and after it. */
export interface BeforeAfter {
  readonly name: string;
  readonly before: string;
  readonly after: string;
}

/** Every check of the last round beside what it showed before; empty while nothing was worked on. */
export function beforeAndAfter(job: Pick<Job, 'machine' | 'works' | 'readings'>): readonly BeforeAfter[] {
  const round = job.works.length + 1;
  if (round === 1) return [];
  const readings = standing(job, 'bench');
  return subjectOf(job.machine).checks.flatMap((check) => {
    const own = readings.filter((reading) => reading.check === check.id && check.method.kind !== 'leads');
    const before = own.findLast((reading) => reading.round < round);
    const after = own.findLast((reading) => reading.round === round);
    if (!before && !after) return [];
    const shown = (reading: typeof before) => (reading ? outcomeText(check, reading.outcome) : 'not measured');
    return [{ name: check.name, before: shown(before), after: shown(after) }];
  });
}

/** What was done, in a line for each work. */
export function workLines({ machine, works }: Pick<Job, 'machine' | 'works'>): readonly string[] {
  return works.map((work) => `${workText(machine, work)} (${work.technician}, ${dayAndTimeOf(work.at)})`);
}

export function workText(
  machine: Job['machine'],
  { fitted, mended, note }: Pick<TakenWork, 'fitted' | 'mended' | 'note'>,
): string {
  const { items, faults } = subjectOf(machine);
  const names = fitted.map((id) => items.find((item) => item.id === id)?.name ?? id);
  const mends = mended.map((part) => faults.find((fault) => fault.part === part && fault.repair)?.repair ?? part);
  const parts = [
    names.length ? `fitted new: ${names.join(', ')}` : '',
    mends.length ? `mended: ${mends.join('; ')}` : '',
    note,
  ];
  return parts
    .filter(Boolean)
    .map((part) => part.charAt(0).toUpperCase() + part.slice(1))
    .join('. ');
}
