import type { z } from 'zod';
import { band, borrowedCurve, fuelEntry, inspection, limit, note, savedView, suspicion } from '../contract/job-file.ts';
import { workTime } from '../contract/day.ts';
import { charge, price } from '../contract/charges.ts';
import { consentTemplate } from '../contract/consents.ts';
import { forecast } from '../contract/forecasts.ts';
import { target } from '../contract/targets.ts';
import { equipmentRecord } from '../contract/equipment.ts';
import { shiftNote } from '../contract/shifts.ts';
import { part } from '../contract/vehicles.ts';
import type { Queryable } from './database.ts';
import { changeRow, columnOf, parameter, recordOf } from './rows.ts';

/** A table of short entries that belong to a job or a vehicle, and can be taken away and brought back. */
export interface EntryTable {
  /** The form of an entry as the contract promises it. */
  schema: z.ZodType<Record<string, unknown>>;
  table: string;
  /** Null: to the shop. */
  belongsTo: 'job_id' | 'vehicle_id' | null;
  fields: readonly string[];
  order: string;
  /** Fields that are kept as exact decimals. */
  amounts?: readonly string[];
  /** Column that there is one entry for in each job: adding it again changes it. */
  onlyOne?: string;
}

const ofJob = <Schema extends z.ZodType<Record<string, unknown>>>(
  table: string,
  schema: Schema,
  fields: readonly string[],
  order = 'id',
) => ({
  table,
  schema,
  belongsTo: 'job_id' as const,
  fields,
  order,
});

export const entryTables = {
  bands: ofJob('band', band, ['name', 'fromRpm', 'toRpm'], 'from_rpm, id'),
  limits: ofJob('job_limit', limit, ['quantity', 'value', 'scale', 'reason', 'source']),
  targets: ofJob('target', target, ['quantity', 'fromRpm', 'toRpm', 'value', 'scale']),
  inspections: { ...ofJob('inspection', inspection, ['key', 'outcome', 'note', 'measured']), onlyOne: 'key' },
  fuelEntries: ofJob('fuel_entry', fuelEntry, ['kind', 'at', 'litres', 'ethanolPct', 'name', 'note'], 'at, id'),
  suspicions: ofJob('suspicion', suspicion, ['cause', 'test', 'outcome', 'state']),
  views: ofJob('saved_view', savedView, ['name', 'address'], 'name, id'),
  borrowedCurves: ofJob(
    'borrowed_curve',
    borrowedCurve,
    ['name', 'origin', 'scale', 'points', 'peakKw', 'errorKw'],
    'name, id',
  ),
  charges: {
    ...ofJob('charge', charge, ['what', 'per', 'quantity', 'amount', 'currency', 'why', 'setupId']),
    amounts: ['quantity', 'amount'],
  },
  prices: { ...ofJob('price', price, ['name', 'per', 'amount', 'currency']), belongsTo: null, amounts: ['amount'] },
  consentTemplates: { ...ofJob('consent_template', consentTemplate, ['title', 'text', 'asked']), belongsTo: null },
  forecasts: ofJob('forecast', forecast, ['setupId', 'who', 'quantity', 'fromRpm', 'toRpm', 'low', 'high']),
  workTimes: ofJob('work_time', workTime, ['bay', 'startsAt', 'endsAt', 'why'], 'starts_at, id'),
  notes: ofJob('note', note, ['text', 'at'], 'at, id'),
  equipment: {
    ...ofJob('equipment', equipmentRecord, [
      'name',
      'kind',
      'serial',
      'what',
      'lastOn',
      'everyDays',
      'dueOn',
      'device',
      'note',
    ]),
    belongsTo: null,
  },
  shiftNotes: { ...ofJob('shift_note', shiftNote, ['text', 'handedBy', 'at', 'takenBy', 'takenAt']), belongsTo: null },
  parts: { ...ofJob('vehicle_part', part, ['name', 'knowledge', 'note']), belongsTo: 'vehicle_id' },
} as const satisfies Record<string, EntryTable>;
export type EntryKind = keyof typeof entryTables;

const runLinks = `array(select run_id from suspicion_run where suspicion_id = suspicion.id order by run_id) as run_ids`;

function columns(entry: EntryTable): string {
  const { table, fields } = entry;
  return [
    'id',
    'revision',
    ...fields.map((field) => asRead(field, entry)),
    ...(table === 'suspicion' ? [runLinks] : []),
  ].join(', ');
}

/** Days of the calendar as text: they have no zone. Amounts as numbers: they are kept to the ten-thousandth. */
function asRead(field: string, { amounts = [] }: EntryTable): string {
  if (field.endsWith('On')) return `${columnOf(field)}::text`;
  return amounts.includes(field) ? `${columnOf(field)}::float8` : columnOf(field);
}

type EntryOf<Kind extends EntryKind> = z.output<(typeof entryTables)[Kind]['schema']>;

/** The entries of a job or vehicle that were not taken away. */
export async function entriesOf<Kind extends EntryKind>(
  database: Queryable,
  kind: Kind,
  ownerId: number,
): Promise<EntryOf<Kind>[]> {
  const entry: EntryTable = entryTables[kind];
  const { rows } = await database.query(
    `select ${columns(entry)} from ${entry.table} where ${entry.belongsTo} = $1 and removed_at is null order by ${entry.order}`,
    [ownerId],
  );
  return rows.map((row) => recordOf(entry.schema, row) as EntryOf<Kind>);
}

type JobEntryKind = Exclude<EntryKind, 'parts' | 'equipment' | 'prices' | 'consentTemplates' | 'shiftNotes'>;
const jobEntryKinds = (Object.keys(entryTables) as EntryKind[]).filter((kind): kind is JobEntryKind => entryTables[kind].belongsTo === 'job_id'); // prettier-ignore

/** All entries of a job, by kind, in one query. */
export async function jobEntries(
  database: Queryable,
  jobId: number,
): Promise<{ [Kind in JobEntryKind]: EntryOf<Kind>[] }> {
  const lists = jobEntryKinds.map((kind) => {
    const entry: EntryTable = entryTables[kind];
    return `(select coalesce(json_agg(to_json(entry)), '[]') from (select ${columns(entry)} from ${entry.table}
       where job_id = $1 and removed_at is null order by ${entry.order}) as entry) as "${kind}"`;
  });
  const { rows } = await database.query<Record<JobEntryKind, Record<string, unknown>[]>>(`select ${lists.join(', ')}`, [
    jobId,
  ]);
  const found = jobEntryKinds.map((kind) => [
    kind,
    rows[0]![kind].map((row) => recordOf(entryTables[kind].schema, withMoments(row))),
  ]);
  return Object.fromEntries(found) as { [Kind in JobEntryKind]: EntryOf<Kind>[] };
}

const isMoment = (column: string) => column === 'at' || column.endsWith('_at');

/** PostgreSQL writes moments into JSON in a form of its own; everywhere else they are ISO 8601 in UTC. */
function withMoments(row: Record<string, unknown>): Record<string, unknown> {
  return Object.fromEntries(Object.entries(row).map(([column, value]) => [column, isMoment(column) && typeof value === 'string' ? new Date(value) : value])); // prettier-ignore
}

export async function entryById(
  database: Queryable,
  kind: EntryKind,
  id: number,
): Promise<Record<string, unknown> | undefined> {
  const entry: EntryTable = entryTables[kind];
  const { rows } = await database.query(
    `select ${columns(entry)} from ${entry.table} where id = $1 and removed_at is null`,
    [id],
  );
  return rows[0] && recordOf(entry.schema, rows[0]);
}

/** @returns the new entry's id */
export async function addEntry(
  database: Queryable,
  kind: EntryKind,
  ownerId: number | null,
  fields: Record<string, unknown>,
): Promise<number> {
  const entry: EntryTable = entryTables[kind];
  const given = entry.fields.filter((field) => fields[field] !== undefined);
  const names = given.map(columnOf);
  const owner = entry.belongsTo ? [entry.belongsTo] : [];
  const again = entry.onlyOne
    ? ` on conflict (${entry.belongsTo}, ${entry.onlyOne}) do update set removed_at = null, ${names.map((name) => `${name} = excluded.${name}`).join(', ')}`
    : '';
  const { rows } = await database.query(
    `insert into ${entry.table} (${[...owner, ...names].join(', ')})
     values (${[...owner, ...names].map((_, index) => `$${index + 1}`).join(', ')})${again} returning id`,
    [...(entry.belongsTo ? [ownerId] : []), ...given.map((field) => parameter(fields[field]))],
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
  const done = await changeRow(database, entryTables[kind].table, id, fields, revision);
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
