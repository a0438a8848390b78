import { shiftNote, type ShiftNote } from '../contract/shop/shifts.ts';
import type { Queryable } from './database.ts';
import { recordOf } from './rows.ts';

/** So many of the last ones are looked at. */
const most = 20;

/** What shifts handed over, the last first. */
export async function shiftNotes(database: Queryable): Promise<ShiftNote[]> {
  const { rows } = await database.query(
    `select id, revision, text, handed_by, at, taken_by, taken_at from shift_note
     where removed_at is null order by at desc, id desc limit ${most}`,
  );
  return rows.map((row) => recordOf(shiftNote, row));
}
