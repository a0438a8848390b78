import { z } from 'zod';
import { setup, type Setup } from '../../contract/job/records.ts';
import type { SetupChange } from '../../contract/job/job-requests.ts';
import type { SetupItemRecord } from '../../contract/values/setup-item.ts';
import { setupLetter } from '../../core/setup/letter.ts';
import { readChange } from '../../core/setup/read-change.ts';
import type { Queryable } from '../database/database.ts';
import { changeRow, recordOf } from '../database/rows.ts';

const columns = `id, job_id, position, parent_id, change, items, created_at, revision, prediction_kw, prediction_from_rpm,
  prediction_to_rpm, prediction_why, decision, decision_why, decided_at, decided_on, planned_runs`;

const setupRow = setup.omit({ letter: true }).extend({ position: z.int().nonnegative() });

function asSetup(row: Record<string, unknown>): Setup {
  const { position, ...rest } = recordOf(setupRow, row);
  return { ...rest, letter: setupLetter(position) };
}

/** The setups of a job that were not taken away, in order. */
export async function setupsOfJob(database: Queryable, jobId: number): Promise<Setup[]> {
  const { rows } = await database.query(
    `select ${columns} from setup where job_id = $1 and removed_at is null order by position`,
    [jobId],
  );
  return rows.map(asSetup);
}

export async function setupById(database: Queryable, id: number): Promise<Setup | undefined> {
  const { rows } = await database.query(`select ${columns} from setup where id = $1 and removed_at is null`, [id]);
  return rows[0] && asSetup(rows[0]);
}

export interface SetupBegun {
  parentId: number | null;
  change: string;
  /** Read out of the line where left out. */
  items?: SetupItemRecord[] | undefined;
  predictionKw?: number | null | undefined;
}

/**
 * Adds the job's next setup. Letters are counted on the job's own row, so two
 * browsers never get the same one, and a letter is never given out again. The
 * number of runs that was planned of its parent is planned of it, too.
 */
export async function addSetup(database: Queryable, jobId: number, begun: SetupBegun): Promise<Setup> {
  const { rows } = await database.query(
    `with lettered as (update job set setups_lettered = setups_lettered + 1 where id = $1 returning id, setups_lettered)
     insert into setup (job_id, position, parent_id, change, items, prediction_kw, planned_runs)
     select id, setups_lettered - 1, $2::bigint, $3, $4, $5, (select planned_runs from setup where setup.id = $2::bigint)
     from lettered returning ${columns}`,
    [
      jobId,
      begun.parentId,
      begun.change,
      JSON.stringify(begun.items ?? readChange(begun.change)),
      begun.predictionKw ?? null,
    ],
  );
  return asSetup(rows[0]!);
}

/**
 * Changes what is written of a setup. Its items follow its line unless they
 * are given; a decision carries the time at which it was made.
 * @returns false when there is no such setup
 */
export async function changeSetup(
  database: Queryable,
  id: number,
  { revision, ...change }: SetupChange,
): Promise<boolean> {
  const items = change.items ?? (change.change === undefined ? undefined : readChange(change.change));
  const decidedAt = change.decision === undefined ? undefined : change.decision === null ? null : new Date();
  return changeRow(database, 'setup', id, { ...change, items, decidedAt }, revision);
}

/** Every item on the way from the first setup to this one, oldest first. */
export async function itemsUpTo(database: Queryable, setupId: number): Promise<SetupItemRecord[]> {
  const { rows } = await database.query(
    `with recursive line as (
       select id, parent_id, items, 0 as depth from setup where id = $1
       union all
       select setup.id, setup.parent_id, setup.items, depth + 1 from setup join line on setup.id = line.parent_id
     )
     select items from line order by depth desc`,
    [setupId],
  );
  return rows.flatMap((row) => row.items);
}
