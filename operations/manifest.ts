import { createHash } from 'node:crypto';
import { z } from 'zod';
import { loneCurveOf } from '../core/figures/curve-of-run.ts';
import type { Queryable } from '../store/database/database.ts';
import { runById } from '../store/runs/runs.ts';
import { recordingOf } from '../store/runs/samples.ts';
import { schemaState } from '../store/database/schema-state.ts';

/** What a backup must give back: counts, the samples to the last bit, and figures made of them. */
export const manifest = z.object({
  /** The last migration. */
  schema: z.string().nullable(),
  /** Rows of every table but that of sessions: whoever restores signs in anew. */
  counts: z.record(z.string(), z.int().nonnegative()),
  /** SHA-256 over every channel of every run, in order. */
  samples: z.string(),
  /** SHA-256 over the curves of some runs, made with one view; empty where the schema is not this program’s, which could not read its runs. */
  figures: z.string(),
});
export type Manifest = z.infer<typeof manifest>;

/** Curves of so many runs, spread over all, are made: all of a shop's would take hours. */
const curvesMade = 40;
const view = { standard: 'sae-j1349', share: 1, smoothing: 300, gridRpm: 50 } as const;

/** Takes stock of a database, of one moment where the connection is in a transaction. */
export async function manifestOf(database: Queryable): Promise<Manifest> {
  const { latest, pending, unknown } = await schemaState(database);
  const readable = pending.length + unknown.length === 0;
  return {
    schema: latest,
    counts: await countsOf(database),
    samples: await samplesOf(database),
    figures: readable ? await figuresOf(database) : '',
  };
}

async function countsOf(database: Queryable): Promise<Record<string, number>> {
  const { rows } = await database.query<{ name: string }>(
    `select quote_ident(tablename) as name from pg_tables where schemaname = 'public' and tablename <> 'session' order by tablename`,
  );
  const counts: Record<string, number> = {};
  for (const { name } of rows) {
    const counted = await database.query<{ rows: number }>(`select count(*)::int as rows from ${name}`);
    counts[name] = counted.rows[0]?.rows ?? 0;
  }
  return counts;
}

async function samplesOf(database: Queryable): Promise<string> {
  const { rows } = await database.query<{ hash: string | null }>(
    `select encode(sha256(string_agg(sha256(data), ''::bytea order by run_id, source, position)), 'hex') as hash from run_channel`,
  );
  return rows[0]?.hash ?? '';
}

async function figuresOf(database: Queryable): Promise<string> {
  const { rows } = await database.query<{ id: number }>(`select id from run where state <> 'recording' order by id`);
  const every = Math.max(1, Math.ceil(rows.length / curvesMade));
  const hash = createHash('sha256');
  for (const { id } of rows.filter((_, index) => index % every === 0)) {
    const run = await runById(database, id);
    const curve = run && loneCurveOf(run, await recordingOf(database, run), view);
    hash.update(JSON.stringify([id, curve?.powerKw ?? null]));
  }
  return hash.digest('hex');
}

/** Where two differ, in words; empty where they are the same. @param sameProgram figures are compared only then */
export function differences(wanted: Manifest, got: Manifest, sameProgram: boolean): string[] {
  const told = sameProgram && wanted.figures !== '' && got.figures !== '';
  const tables = [...new Set([...Object.keys(wanted.counts), ...Object.keys(got.counts)])];
  return [
    ...(wanted.schema === got.schema ? [] : [`schema ${got.schema ?? 'none'} in place of ${wanted.schema ?? 'none'}`]),
    ...tables.flatMap((table) =>
      wanted.counts[table] === got.counts[table]
        ? []
        : [`${got.counts[table] ?? 0} rows of ${table} in place of ${wanted.counts[table] ?? 0}`],
    ),
    ...(wanted.samples === got.samples ? [] : ['the samples are not the same']),
    ...(wanted.figures === got.figures || !told ? [] : ['the figures made of them are not the same']),
  ];
}
