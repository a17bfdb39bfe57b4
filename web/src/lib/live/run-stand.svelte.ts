import type { OutputPoint } from '@refectum/core/curves';
import { parseQuantity, type Unit } from '@refectum/core/quantity';
import { reach, ValidationError } from 'yup';
import type { Job } from '../job.ts';
import type { Person } from '../people.ts';
import { readRunLog, type RunStep, type TakenPoint, type TakenRunStep } from '../run-log.ts';
import { runStepSchema } from '../schemas.ts';
import { freshId, outbox } from './outbox.svelte.ts';
import { runsSent } from './sent.ts';

export const pointFields = ['rpm', 'volts', 'amps', 'celsius'] as const;
export type PointField = (typeof pointFields)[number];
const units: Partial<Record<PointField, Unit>> = { volts: 'volts', amps: 'amps', celsius: 'celsius' };

/** The unit on screen on the run stand: the points of its output and what was answered for. */
export class RunStand {
  readonly #job: () => Job;
  readonly #person: () => Person;
  readonly #round: () => number;
  /** A point as it is being typed, and what is wrong with it, by field. */
  typed = $state<Record<PointField, string>>({ rpm: '', volts: '', amps: '', celsius: '' });
  problems = $state<Partial<Record<PointField | 'why', string>>>({});
  why = $state('');
  #log = $derived.by(() => readRunLog(runsSent(this.#job()), this.#round()));

  constructor(job: () => Job, person: () => Person, round: () => number) {
    this.#job = job;
    this.#person = person;
    this.#round = round;
  }

  /** A viewer may look, not write. */
  get mayWrite(): boolean {
    return this.#person().role !== 'viewer';
  }
  get points(): readonly TakenPoint[] {
    return this.#log.points;
  }
  /** Reasons of the light, by id, that somebody answered for. */
  get answeredFor(): readonly string[] {
    return this.#log.answeredFor;
  }
  get released(): TakenRunStep | undefined {
    return this.#log.released;
  }

  /** Takes the point that was typed; speed and amps make room at once for the next, volts and temperature stay. */
  addPoint(): boolean {
    const read = Object.fromEntries(pointFields.flatMap((field) => this.#read(field))) as unknown as OutputPoint;
    const step: RunStep = { kind: 'point', ...read };
    this.problems = problemsOf(step, pointFields);
    for (const field of pointFields) {
      const said = this.#refused(field);
      if (said) this.problems[field] = said;
    }
    if (Object.keys(this.problems).length > 0) return false;
    void this.#add(step);
    this.typed = { ...this.typed, rpm: '', amps: '' };
    return true;
  }

  strike(step: string): Promise<void> {
    return this.#add({ kind: 'struck', step });
  }

  /** Answers for a run against the reasons of a red light, by their ids. */
  async release(against: readonly string[]): Promise<boolean> {
    const step: RunStep = { kind: 'released', why: this.why.trim(), against };
    this.problems = problemsOf(step, ['why']);
    if (this.problems.why) return false;
    await this.#add(step);
    this.why = '';
    return true;
  }

  #read(field: PointField): [PointField, number][] {
    const text = this.typed[field].trim();
    if (!text) return [];
    const unit = units[field];
    if (!unit) return [[field, Number(text.replace(/[\s\u202f]/g, '').replace(',', '.'))]];
    const read = parseQuantity(text, unit);
    return read.kind === 'value' ? [[field, read.value]] : [];
  }

  #refused(field: PointField): string | undefined {
    const unit = units[field];
    const text = this.typed[field].trim();
    const read = unit && text ? parseQuantity(text, unit) : undefined;
    if (!read || read.kind === 'value') return undefined;
    return read.kind === 'refused' ? read.message : 'A number is needed here.';
  }

  async #add(step: RunStep): Promise<void> {
    const { tag } = this.#job();
    const id = freshId();
    const body = { id, at: new Date().toISOString(), round: this.#round(), step };
    await outbox.send(this.#person(), { id, tag, method: 'POST', path: `/api/jobs/${tag}/runs`, body });
  }
}

/** What the server would say of a step, by field. */
function problemsOf<F extends string>(step: RunStep, fields: readonly F[]): Partial<Record<F, string>> {
  const schema = reach(runStepSchema, 'step', { step }, { step });
  const found: Partial<Record<F, string>> = {};
  try {
    (schema as unknown as { validateSync: (value: unknown, options: object) => unknown }).validateSync(step, {
      abortEarly: false,
    });
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    for (const { path, message } of error.inner) {
      const field = fields.find((one) => one === path);
      if (field) found[field] ??= message;
    }
  }
  return found;
}
