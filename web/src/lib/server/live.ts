import { sql } from 'drizzle-orm';
import type pg from 'pg';
import { anyTag } from '../job.ts';
import { connection, type Queryable } from './db/connect.ts';

/** Changes travel through the database, so that any number of processes hear of them. */
const channel = 'refectum_job';
const holder = globalThis as { refectumLive?: Live };

/** Tells every process that a job changed, when the transaction commits. */
export const announce = (db: Queryable, tag: number): Promise<unknown> =>
  db.execute(sql`SELECT pg_notify(${channel}, ${String(tag)})`);

/** So many of the newest changes are remembered, for whoever begins to listen. */
const remembered = 500;

/** Hears of changes and hands them on to whoever listens here. */
class Live {
  readonly #listeners = new Set<(tag: number) => void>();
  readonly #closers = new Set<() => void>();
  #client: pg.PoolClient | undefined;
  #again: ReturnType<typeof setTimeout> | undefined;
  #closed = false;
  /** The newest change's number; the first is later than any of a process before. */
  #number = Date.now();
  /** Tags of the newest changes, oldest first. */
  #newest: number[] = [];

  async listen(): Promise<void> {
    if (this.#closed || this.#client) return;
    const client = await connection().pool.connect();
    this.#client = client;
    const drop = () => {
      if (this.#client !== client) return;
      this.#client = undefined;
      client.release(true);
    };
    client.on('notification', ({ payload }) => this.#hear(Number(payload)));
    client.on('error', () => {
      drop();
      this.#listenAgain();
    });
    await client.query(`LISTEN ${channel}`).catch((cause: Error) => {
      drop();
      throw cause;
    });
    // What changed before, or while the database was away, wasn't heard.
    this.#newest = [];
    this.#number++;
    this.#listeners.forEach((hear) => hear(anyTag));
  }

  /** Again and again, until the database is back. */
  #listenAgain(): void {
    clearTimeout(this.#again);
    this.#again = setTimeout(() => void this.listen().catch(() => this.#listenAgain()), 1000).unref();
  }

  #hear(tag: number): void {
    this.#number++;
    this.#newest = [...this.#newest, tag].slice(-remembered);
    this.#listeners.forEach((hear) => hear(tag));
  }

  /** The newest change's number: what a page is given goes with the one before it was read. */
  get number(): number {
    return this.#number;
  }

  /** The tags that changed since a change's number; `anyTag` where that isn't known. */
  since(number: number): readonly number[] {
    const missed = this.#number - number;
    if (!(missed >= 0 && missed <= this.#newest.length)) return [anyTag];
    return [...new Set(this.#newest.slice(this.#newest.length - missed))];
  }

  subscribe(hear: (tag: number) => void): () => void {
    this.#listeners.add(hear);
    return () => void this.#listeners.delete(hear);
  }

  /** What is to end when the server ends. */
  onClose(close: () => void): () => void {
    this.#closers.add(close);
    return () => void this.#closers.delete(close);
  }

  close(): void {
    this.#closed = true;
    this.#closers.forEach((close) => close());
    this.#client?.release(true);
    this.#client = undefined;
  }
}

export const live = (): Live => (holder.refectumLive ??= new Live());
