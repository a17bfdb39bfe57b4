import { resolve } from 'node:path';
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import pg from 'pg';
import * as schema from './schema.ts';

export type Database = NodePgDatabase<typeof schema>;
/** The database, or one transaction on it. */
export type Queryable = Database | Parameters<Parameters<Database['transaction']>[0]>[0];

interface Connection {
  readonly pool: pg.Pool;
  readonly db: Database;
}

// Kept on globalThis: in development each edit on the server loads this module again.
const holder = globalThis as { refectumConnection?: Connection };

export function connection(): Connection {
  if (!holder.refectumConnection) {
    const connectionString = process.env.DATABASE_URL;
    if (!connectionString)
      throw new Error('DATABASE_URL is not set: start with bin/refectum demo or bin/refectum start');
    const pool = new pg.Pool({ connectionString, max: 10, connectionTimeoutMillis: 5000 });
    pool.on('error', (error) => console.error(`database connection lost: ${error.message}`));
    holder.refectumConnection = { pool, db: drizzle(pool, { schema, casing: 'snake_case' }) };
  }
  return holder.refectumConnection;
}

export const database = (): Database => connection().db;

const migrationLock = 7_314_001;

/** Brings the tables up to date; several processes starting at once take turns. */
export async function migrateDatabase(): Promise<void> {
  const client = await connection().pool.connect();
  try {
    await client.query('SELECT pg_advisory_lock($1)', [migrationLock]);
    const migrationsFolder = process.env.MIGRATIONS_DIR ?? resolve('drizzle');
    await migrate(drizzle(client, { casing: 'snake_case' }), { migrationsFolder });
  } finally {
    await client.query('SELECT pg_advisory_unlock($1)', [migrationLock]);
    client.release();
  }
}
