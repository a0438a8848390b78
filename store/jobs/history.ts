import { entryKinds } from '../../contract/job/entries.ts';
import { change, type Change } from '../../contract/job/job-file.ts';
import { Refusal } from '../../core/refusal.ts';
import type { Queryable } from '../database/database.ts';
import { EditConflict, fieldOf, recordOf } from '../database/rows.ts';

/** Tables whose rows can be taken away, and so whose additions can be undone. */
const removable = new Set<string>([
  ...Object.values(entryKinds).map(({ table }) => table),
  'owner',
  'vehicle',
  'photo',
  'setup',
  'setup_tune_file',
  'report_version',
  'shared_link',
  'tuner_package',
  'booking',
]);
/** Tables of which changes, but no additions, can be undone. */
const changeable = new Set([...removable, 'job', 'run']);

const byField = (values: Record<string, unknown>) =>
  Object.fromEntries(Object.entries(values).map(([column, value]) => [fieldOf(column), value]));

/** What was changed in a job's file, its vehicle's included; the last first. */
export async function changesOfJob(database: Queryable, jobId: number, most = 1000): Promise<Change[]> {
  const { rows } = await database.query(
    `select history.id, act, at, subject, row_id, before, after, person.name as person
     from history left join person on person.id = person_id
     where job_id = $1 or (job_id is null and vehicle_id = (select vehicle_id from job where job.id = $1))
     order by history.id desc limit $2`,
    [jobId, most],
  );
  return rows.map((row) => {
    const { before, after, ...rest } = recordOf(change, row);
    return { ...rest, before: before && byField(before), after: byField(after) };
  });
}

interface HistoryRow {
  subject: string;
  row_id: number;
  before: Record<string, unknown> | null;
  after: Record<string, unknown>;
}

/**
 * Undoes everything that one act changed; that is an act of its own, which can
 * be undone in turn.
 * @returns false when there is no such act
 * @throws EditConflict when any of it was changed again since
 */
export async function undoAct(database: Queryable, act: number): Promise<boolean> {
  const { rows } = await database.query<HistoryRow>(
    'select subject, row_id, before, after from history where act = $1 order by id desc',
    [act],
  );
  for (const row of rows) await undoRow(database, row);
  return rows.length > 0;
}

async function undoRow(database: Queryable, { subject, row_id, before, after }: HistoryRow): Promise<void> {
  if (!changeable.has(subject) || (before === null && !removable.has(subject))) {
    throw new Refusal('This cannot be undone: what was recorded, and that it was, is kept. Change it forward instead.');
  }
  const { rows } = await database.query(
    `select to_jsonb(${subject}) as now, to_jsonb(${subject}) @> $2::jsonb as untouched from ${subject} where id = $1 for update`,
    [row_id, JSON.stringify(after)],
  );
  if (!rows[0]) throw new EditConflict('What was changed is no longer there.');
  if (before === null) {
    await database.query(`update ${subject} set removed_at = now() where id = $1 and removed_at is null`, [row_id]);
    return;
  }
  if (!rows[0].untouched) {
    throw new EditConflict('It was changed again since, so it was left as it is now. Change it by hand.');
  }
  const columns = Object.keys(before).filter((column) => /^[a-z_]+$/.test(column));
  await database.query(
    `update ${subject} set (${columns.join(', ')}) = row(${columns.map((column) => `earlier.${column}`).join(', ')})
     from jsonb_populate_record(null::${subject}, $2::jsonb) as earlier where ${subject}.id = $1`,
    [row_id, JSON.stringify(before)],
  );
}
