import type { z } from 'zod';
import type { changeItem } from '../../contract/bench-link.ts';
import type { Setup } from '../../contract/records.ts';
import { changeItems } from '../../core/setup/change.ts';
import { setupLetter } from '../../core/setup/letter.ts';
import type { Queryable } from './database.ts';

const columns = `id, job_id as "jobId", position, parent_id as "parentId", change, items, created_at as "createdAt"`;

interface SetupRow extends Omit<Setup, 'letter' | 'createdAt'> {
  position: number;
  createdAt: Date;
}

function asSetup({ position, createdAt, ...row }: SetupRow): Setup {
  return { ...row, letter: setupLetter(position), createdAt: createdAt.toISOString() };
}

export async function setupsOfJob(database: Queryable, jobId: number): Promise<Setup[]> {
  const { rows } = await database.query<SetupRow>(`select ${columns} from setup where job_id = $1 order by position`, [
    jobId,
  ]);
  return rows.map(asSetup);
}

export async function setupById(database: Queryable, id: number): Promise<Setup | undefined> {
  const { rows } = await database.query<SetupRow>(`select ${columns} from setup where id = $1`, [id]);
  return rows[0] && asSetup(rows[0]);
}

/**
 * Adds the job's next setup. Its numeric items are read out of the line that says what changed.
 * Letters are counted on the job's own row, so two browsers never get the same one.
 */
export async function addSetup(
  database: Queryable,
  jobId: number,
  setup: { parentId: number | null; change: string },
): Promise<Setup> {
  const { rows } = await database.query<SetupRow>(
    `with lettered as (update job set setups_lettered = setups_lettered + 1 where id = $1 returning id, setups_lettered)
     insert into setup (job_id, position, parent_id, change, items)
     select id, setups_lettered - 1, $2::bigint, $3, $4 from lettered returning ${columns}`,
    [jobId, setup.parentId, setup.change, JSON.stringify(changeItems(setup.change))],
  );
  return asSetup(rows[0]!);
}

/** Rewrites what a setup changed. @returns undefined when there is no such setup */
export async function rewordSetup(database: Queryable, id: number, change: string): Promise<Setup | undefined> {
  const { rows } = await database.query<SetupRow>(
    `update setup set change = $2, items = $3 where id = $1 returning ${columns}`,
    [id, change, JSON.stringify(changeItems(change))],
  );
  return rows[0] && asSetup(rows[0]);
}

/** Every numeric item on the way from the first setup to this one, oldest first. */
export async function itemsUpTo(database: Queryable, setupId: number): Promise<z.infer<typeof changeItem>[]> {
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
