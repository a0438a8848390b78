import pg from 'pg';
import { runner } from 'node-pg-migrate';
import { Refusal } from '../core/refusal.ts';
import { migrationsFolder, newerSchema, schemaState } from './schema-state.ts';

/**
 * Brings a database's schema up to date.
 * @returns the names of the migrations that were run
 * @throws Refusal when a newer program has written it
 */
export async function migrate(databaseUrl: string): Promise<string[]> {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  try {
    const newer = newerSchema(await schemaState(client));
    if (newer) throw new Refusal(newer);
  } finally {
    await client.end();
  }
  const done = await runner({
    databaseUrl,
    dir: migrationsFolder,
    direction: 'up',
    migrationsTable: 'migration',
    log: () => undefined,
  });
  return done.map((migration) => migration.name);
}
