import type { z } from 'zod';
import { Refusal } from '../../core/refusal.ts';
import type { Queryable } from './database.ts';

/** Somebody else changed the same field meanwhile; nothing was stored. */
export class EditConflict extends Error {
  constructor(
    message: string,
    readonly field?: string,
    readonly current?: Record<string, unknown>,
  ) {
    super(message);
  }
}

export const columnOf = (field: string) => field.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`);
export const fieldOf = (column: string) => column.replace(/_([a-z0-9])/g, (_, letter: string) => letter.toUpperCase());

/** A row as a record: fields for columns, moments in ISO form. */
export function asRecord(row: Record<string, unknown>): Record<string, unknown> {
  const entries = Object.entries(row).map(([column, value]) => [
    fieldOf(column),
    value instanceof Date ? value.toISOString() : value,
  ]);
  return Object.fromEntries(entries) as Record<string, unknown>;
}

/**
 * A row in the form that the contract promises; columns that are none of it are left out.
 * @throws ZodError when what is stored has another form: a mistake of the store's, never to be passed on
 */
export function recordOf<Schema extends z.ZodType>(schema: Schema, row: Record<string, unknown>): z.output<Schema> {
  return schema.parse(asRecord(row));
}

/** A value for a parameter: lists and objects go into jsonb columns. */
export function parameter(value: unknown): unknown {
  return value !== null && typeof value === 'object' && !(value instanceof Date) ? JSON.stringify(value) : value;
}

/**
 * Writes a new row.
 * @param table a name of our own, never a user's
 * @returns its number
 */
export async function insertRow(database: Queryable, table: string, fields: Record<string, unknown>): Promise<number> {
  const given = Object.entries(fields);
  const { rows } = await database.query<{ id: number }>(
    `insert into ${table} (${given.map(([field]) => columnOf(field)).join(', ')})
     values (${given.map((_, index) => `$${index + 1}`).join(', ')}) returning id`,
    given.map(([, value]) => parameter(value)),
  );
  return rows[0]!.id;
}

/**
 * Changes some fields of a row. Two browsers may edit one row: fields that
 * the other one did not touch go in beside its own; the same field changed
 * otherwise is a conflict, and nothing is stored.
 *
 * @param table a name of our own, never a user's
 * @param revision that the page had before it; undefined to overwrite
 * @returns false when there is no such row
 * @throws EditConflict with what is stored now
 */
export async function changeRow(
  database: Queryable,
  table: string,
  id: number,
  fields: Record<string, unknown>,
  revision?: number,
): Promise<boolean> {
  const given = Object.entries(fields).filter(([, value]) => value !== undefined);
  const { rows } = await database.query(`select * from ${table} where id = $1 for update`, [id]);
  const row = rows[0];
  if (!row || row.removed_at) return false;
  if (given.length === 0) return true;
  if (revision !== undefined && row.revision !== revision) await refuseClash(database, table, row, given, revision);
  const sets = given.map(([field], index) => `${columnOf(field)} = $${index + 2}`);
  await database.query(`update ${table} set ${sets.join(', ')} where id = $1`, [
    id,
    ...given.map(([, value]) => parameter(value)),
  ]);
  return true;
}

async function refuseClash(
  database: Queryable,
  table: string,
  row: Record<string, unknown>,
  given: readonly (readonly [string, unknown])[],
  revision: number,
): Promise<void> {
  const { rows } = await database.query(
    `select distinct key from history, jsonb_object_keys(after) as key
     where subject = $1 and row_id = $2 and revision > $3`,
    [table, row.id, revision],
  );
  const touched = new Set(rows.map(({ key }) => key as string));
  const clash = given.find(
    ([field, value]) => touched.has(columnOf(field)) && JSON.stringify(row[columnOf(field)]) !== JSON.stringify(value),
  );
  if (!clash) return;
  const now = row[columnOf(clash[0])];
  throw new EditConflict(
    `Somebody else changed this meanwhile, to “${said(now)}”. Yours is kept here and not stored: store it over theirs, or take theirs.`,
    clash[0],
    asRecord(row),
  );
}

function said(value: unknown): string {
  if (value === null || value === '') return 'nothing';
  return typeof value === 'string' ? value : JSON.stringify(value);
}

/** The sentences of the schema's own refusals (migrations/0002), by their codes. */
const refusals: Record<string, string> = {
  SV001: 'The prediction is locked: the setup has run. Write what you think now into the decision instead.',
  SV002: 'A setup that has runs is kept for ever. Set its runs aside, or move them, instead.',
  SV003: 'Another setup was changed from this one; take that away first.',
  SV004: 'This setup is on the dyno. Put another one on first.',
  SV006: 'A vehicle that has jobs is kept: its runs belong to it.',
  SV007: 'One owner must stay: make another one first.',
  SV009: 'The forecast is locked: the setup has run.',
  SV008: 'What was signed stays as it was signed.',
  SV010: 'The job is closed: its file is read only until it is reopened (Brief, Reopen). Nothing was changed.',
  SV005: 'The number of planned runs is locked: the setup has run. State it for the next setup.',
};

/** Turns a refusal of the schema into its sentence; other errors go on as they are. */
export function asRefusal(error: unknown): unknown {
  const sentence = refusals[(error as { code?: string }).code ?? ''];
  return sentence ? new Refusal(sentence) : error;
}
