import type { z } from 'zod';
import {
  columnFields,
  entryKind,
  jobEntryKinds,
  type entryKinds,
  type EntryKind,
  type JobEntryKind,
} from '../../contract/job/entries.ts';
import type { Queryable } from './database.ts';
import { changeRow, columnOf, parameter, recordOf } from './rows.ts';

/** The column that says what an entry belongs to; undefined for the shop's. */
const ownerColumns = { jobs: 'job_id', vehicles: 'vehicle_id', shop: undefined } as const;
const ownerColumn = (kind: EntryKind) => ownerColumns[entryKind(kind).of];

const runLinks = `array(select run_id from suspicion_run where suspicion_id = suspicion.id order by run_id) as run_ids`;

function columns(kind: EntryKind): string {
  return [
    'id',
    'revision',
    ...columnFields(kind).map((field) => asRead(field, kind)),
    ...(kind === 'suspicions' ? [runLinks] : []),
  ].join(', ');
}

/** Days of the calendar as text: they have no zone. Amounts as numbers: they are kept to the ten-thousandth. */
function asRead(field: string, kind: EntryKind): string {
  const { amounts = [] } = entryKind(kind);
  if (field.endsWith('On')) return `${columnOf(field)}::text`;
  return amounts.includes(field) ? `${columnOf(field)}::float8` : columnOf(field);
}

type EntryOf<Kind extends EntryKind> = z.output<(typeof entryKinds)[Kind]['record']>;

/** The entries of a job or vehicle that were not taken away. */
export async function entriesOf<Kind extends EntryKind>(
  database: Queryable,
  kind: Kind,
  ownerId: number,
): Promise<EntryOf<Kind>[]> {
  const { table, order = 'id', record } = entryKind(kind);
  const { rows } = await database.query(
    `select ${columns(kind)} from ${table} where ${ownerColumn(kind)} = $1 and removed_at is null order by ${order}`,
    [ownerId],
  );
  return rows.map((row) => recordOf(record, row) as EntryOf<Kind>);
}

const kindsOfJob = Object.keys(jobEntryKinds) as JobEntryKind[];

/** All entries of a job, by kind, in one query. */
export async function jobEntries(
  database: Queryable,
  jobId: number,
): Promise<{ [Kind in JobEntryKind]: EntryOf<Kind>[] }> {
  const lists = kindsOfJob.map((kind) => {
    const { table, order = 'id' } = entryKind(kind);
    return `(select coalesce(json_agg(to_json(entry)), '[]') from (select ${columns(kind)} from ${table}
       where job_id = $1 and removed_at is null order by ${order}) as entry) as "${kind}"`;
  });
  const { rows } = await database.query<Record<JobEntryKind, Record<string, unknown>[]>>(`select ${lists.join(', ')}`, [
    jobId,
  ]);
  const found = kindsOfJob.map((kind) => [
    kind,
    rows[0]![kind].map((row) => recordOf(entryKind(kind).record, withMoments(row))),
  ]);
  return Object.fromEntries(found) as { [Kind in JobEntryKind]: EntryOf<Kind>[] };
}

const isMoment = (column: string) => column === 'at' || column.endsWith('_at');

/** PostgreSQL writes moments into JSON in a form of its own; everywhere else they are ISO 8601 in UTC. */
function withMoments(row: Record<string, unknown>): Record<string, unknown> {
  return Object.fromEntries(
    Object.entries(row).map(([column, value]) => [
      column,
      isMoment(column) && typeof value === 'string' ? new Date(value) : value,
    ]),
  );
}

export async function entryById(
  database: Queryable,
  kind: EntryKind,
  id: number,
): Promise<Record<string, unknown> | undefined> {
  const { table, record } = entryKind(kind);
  const { rows } = await database.query(`select ${columns(kind)} from ${table} where id = $1 and removed_at is null`, [
    id,
  ]);
  return rows[0] && recordOf(record, rows[0]);
}

/** @returns the new entry's id */
export async function addEntry(
  database: Queryable,
  kind: EntryKind,
  ownerId: number | null,
  fields: Record<string, unknown>,
): Promise<number> {
  const { table, onlyOne } = entryKind(kind);
  const given = columnFields(kind).filter((field) => fields[field] !== undefined);
  const names = given.map(columnOf);
  const owner = ownerColumn(kind) ? [ownerColumn(kind)] : [];
  const again = onlyOne
    ? ` on conflict (${ownerColumn(kind)}, ${onlyOne}) do update set removed_at = null, ${names.map((name) => `${name} = excluded.${name}`).join(', ')}`
    : '';
  const { rows } = await database.query(
    `insert into ${table} (${[...owner, ...names].join(', ')})
     values (${[...owner, ...names].map((_, index) => `$${index + 1}`).join(', ')})${again} returning id`,
    [...(ownerColumn(kind) ? [ownerId] : []), ...given.map((field) => parameter(fields[field]))],
  );
  await linkRuns(database, kind, rows[0].id, fields.runIds);
  return rows[0].id;
}

/** @returns false when there is no such entry @throws EditConflict */
export async function changeEntry(
  database: Queryable,
  kind: EntryKind,
  id: number,
  { runIds, ...fields }: Record<string, unknown>,
  revision?: number,
): Promise<boolean> {
  const done = await changeRow(database, entryKind(kind).table, id, fields, revision);
  if (done) await linkRuns(database, kind, id, runIds);
  return done;
}

/** Takes an entry away; it stays stored, and its act can be undone. */
export async function removeEntry(database: Queryable, table: string, id: number): Promise<boolean> {
  const { rowCount } = await database.query(
    `update ${table} set removed_at = now() where id = $1 and removed_at is null`,
    [id],
  );
  return rowCount === 1;
}

async function linkRuns(database: Queryable, kind: EntryKind, id: number, runIds: unknown): Promise<void> {
  if (kind !== 'suspicions' || !Array.isArray(runIds)) return;
  await database.query('delete from suspicion_run where suspicion_id = $1', [id]);
  await database.query(
    `insert into suspicion_run (suspicion_id, run_id)
     select $1, run.id from run join suspicion on suspicion.id = $1 and run.job_id = suspicion.job_id where run.id = any($2)`,
    [id, runIds],
  );
}
