import { readdir } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import type { Queryable } from './database.ts';

export const migrationsFolder = fileURLToPath(new URL('../../migrations', import.meta.url));

/** How a database stands to this program. */
export interface SchemaState {
  /** The last migration that the database has had; null in an empty one. */
  latest: string | null;
  /** Migrations of this program that it has not had. */
  pending: string[];
  /** Migrations that it has had and this program does not know: a newer program made them. */
  unknown: string[];
}

/** Compares the migrations that a database has had with those of this program. */
export async function schemaState(database: Queryable): Promise<SchemaState> {
  const known = (await readdir(migrationsFolder))
    .filter((file) => file.endsWith('.sql'))
    .map((file) => file.slice(0, -4));
  const { rows } = await database.query<{ there: boolean }>(`select to_regclass('migration') is not null as there`);
  const had = rows[0]?.there
    ? await database.query<{ name: string }>('select name from migration order by id')
    : { rows: [] };
  const names = had.rows.map(({ name }) => name);
  return {
    latest: names.at(-1) ?? null,
    pending: known.filter((name) => !names.includes(name)).sort(),
    unknown: names.filter((name) => !known.includes(name)),
  };
}

/** @returns why this program must not touch the database; null when it may */
export function newerSchema({ unknown }: SchemaState): string | null {
  if (unknown.length === 0) return null;
  return `The data were written by a newer Suvok (it made ${unknown.join(', ')}). Start that version, or restore a backup of before it; nothing was changed.`;
}
