import pg from 'pg';
import { runner } from 'node-pg-migrate';
import { Refusal } from '../../core/refusal.ts';
import { migrationsFolder, newerSchema, schemaState } from './schema-state.ts';

/**
 * Brings a database's schema up to date. Where it is, nothing is asked of the role but to read.
 * @returns the names of the migrations that were run
 * @throws Refusal when a newer program has written it, or the role may not change it
 */
export async function migrate(databaseUrl: string): Promise<string[]> {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  try {
    const state = await schemaState(client);
    const newer = newerSchema(state);
    if (newer) throw new Refusal(newer);
    if (state.pending.length === 0) return [];
    const { rows } = await client.query<{ may: boolean }>(`select has_schema_privilege('public', 'create') as may`);
    if (!rows[0]?.may)
      throw new Refusal(
        'The data are of an older version, and the role of DATABASE_URL may not bring them up to date. Start once with DATABASE_OWNER_URL, the address with the owner’s role.',
      );
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
