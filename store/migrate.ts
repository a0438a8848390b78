import { fileURLToPath } from 'node:url';
import { runner } from 'node-pg-migrate';

const folder = fileURLToPath(new URL('../migrations', import.meta.url));

/** Brings a database's schema up to date. @returns the names of the migrations that were run */
export async function migrate(databaseUrl: string): Promise<string[]> {
  const done = await runner({
    databaseUrl,
    dir: folder,
    direction: 'up',
    migrationsTable: 'migration',
    log: () => undefined,
  });
  return done.map((migration) => migration.name);
}
