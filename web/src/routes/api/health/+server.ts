import { json } from '@sveltejs/kit';
import { sql } from 'drizzle-orm';
import { database } from '$lib/server/db/connect.ts';

export const GET = async () => {
  await database().execute(sql`SELECT 1`);
  return json({ well: true });
};
