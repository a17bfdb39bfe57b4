import { sql } from 'drizzle-orm';
import type pg from 'pg';
import { connection, type Queryable } from './db/connect.ts';

/** Changes travel through the database, so that any number of processes hear of them. */
const channel = 'refectum_job';
const holder = globalThis as { refectumLive?: Live };

/** Tells every process that a job changed, when the transaction commits. */
export const announce = (db: Queryable, tag: number): Promise<unknown> =>
  db.execute(sql`SELECT pg_notify(${channel}, ${String(tag)})`);

/** Hears of changes and hands them on to whoever listens here. */
class Live {
  readonly #listeners = new Set<(tag: number) => void>();
  readonly #closers = new Set<() => void>();
  #client: pg.PoolClient | undefined;
  #closed = false;

  async listen(): Promise<void> {
    if (this.#closed || this.#client) return;
    const client = await connection().pool.connect();
    this.#client = client;
    client.on('notification', ({ payload }) => this.#listeners.forEach((hear) => hear(Number(payload))));
    client.on('error', () => {
      this.#client = undefined;
      client.release(true);
      setTimeout(() => void this.listen().catch(() => undefined), 1000).unref();
    });
    await client.query(`LISTEN ${channel}`);
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
