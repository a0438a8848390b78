import type { Queryable } from './database.ts';

/**
 * Which database this is. A restored or a new one is another, though its jobs
 * and runs have numbers that were somebody else's before.
 */
export async function databaseIdentity(database: Queryable): Promise<string> {
  const { rows } = await database.query<{ id: string }>('select id from database_identity');
  if (!rows[0]) throw new Error('The database does not say which one it is.');
  return rows[0].id;
}
