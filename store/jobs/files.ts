import { createHash } from 'node:crypto';
import { photo, tuneFile, type Photo, type TuneFile } from '../../contract/job/job-file.ts';
import { setupLetter } from '../../core/setup/letter.ts';
import type { Queryable } from '../database/database.ts';
import { recordOf } from '../database/rows.ts';
import { addSetup } from './setups.ts';

/** Tune files and photos: their contents stay in the store, records travel without them. */
const tuneFileColumns = `setup_tune_file.id, setup_tune_file.revision, setup_id, name, author, note, sha256, bytes,
  returned, setup_tune_file.created_at`;
const tuneFileFrom = 'from setup_tune_file join tune_file on tune_file.id = tune_file_id';

export async function tuneFilesOfJob(database: Queryable, jobId: number): Promise<TuneFile[]> {
  const { rows } = await database.query(
    `select ${tuneFileColumns} ${tuneFileFrom} where job_id = $1 and removed_at is null order by setup_tune_file.id`,
    [jobId],
  );
  return rows.map((row) => recordOf(tuneFile, row));
}

export async function tuneFileById(database: Queryable, id: number): Promise<TuneFile | undefined> {
  const { rows } = await database.query(
    `select ${tuneFileColumns} ${tuneFileFrom} where setup_tune_file.id = $1 and removed_at is null`,
    [id],
  );
  return rows[0] && recordOf(tuneFile, rows[0]);
}

/** Where else a content is known from, the last first. */
export interface KnownFrom {
  jobId: number;
  vehicle: string;
  setup: string;
  name: string;
}

const hashOf = (content: Buffer) => createHash('sha256').update(content).digest('hex');

/** Where a content ran in a job, the last first; files that were taken away are not looked at. */
async function ranInJob(
  database: Queryable,
  jobId: number,
  sha256: string,
): Promise<{ setup: string; name: string } | undefined> {
  const { rows } = await database.query<{ position: number; name: string }>(
    `select setup.position, name ${tuneFileFrom} join setup on setup.id = setup_id
     where setup_tune_file.job_id = $1 and sha256 = $2 and setup_tune_file.removed_at is null
     order by setup_tune_file.id desc limit 1`,
    [jobId, sha256],
  );
  return rows[0] && { setup: setupLetter(rows[0].position), name: rows[0].name };
}

/**
 * Takes in a tune file that was made for a setup elsewhere: it becomes the next setup, changed from that one. A content
 * that the job has seen changes nothing. To be called in a transaction.
 */
export async function addReturnedFile(
  database: Queryable,
  madeFor: { id: number; jobId: number },
  file: { name: string; author: string; note: string; content: Buffer },
): Promise<{ again: { setup: string; name: string } | null; letter: string | null }> {
  // Two that come at once come one after the other.
  await database.query('select from job where id = $1 for update', [madeFor.jobId]);
  const again = await ranInJob(database, madeFor.jobId, hashOf(file.content));
  if (again) return { again, letter: null };
  const setup = await addSetup(database, madeFor.jobId, { parentId: madeFor.id, change: `Tune file ${file.name}` });
  await addTuneFile(database, setup, { ...file, returned: true });
  return { again: null, letter: setup.letter };
}

/** Takes a tune file in for a setup: its content is stored once, whatever it is called. */
export async function addTuneFile(
  database: Queryable,
  setup: { id: number; jobId: number },
  file: { name: string; author: string; note: string; returned?: boolean; content: Buffer },
): Promise<{ id: number; knownFrom: KnownFrom[] }> {
  const sha256 = hashOf(file.content);
  const { rows: contents } = await database.query(
    `insert into tune_file (sha256, bytes, content) values ($1, $2, $3)
     on conflict (sha256) do update set sha256 = excluded.sha256 returning id`,
    [sha256, file.content.length, file.content],
  );
  const contentId = contents[0].id;
  const { rows: known } = await database.query(
    `select setup_tune_file.job_id as "jobId", vehicle.name as vehicle, setup.position, setup_tune_file.name
     from setup_tune_file join setup on setup.id = setup_id join job on job.id = setup_tune_file.job_id
       join vehicle on vehicle.id = job.vehicle_id
     where tune_file_id = $1 and setup_tune_file.removed_at is null order by setup_tune_file.id desc limit 5`,
    [contentId],
  );
  const { rows } = await database.query(
    `insert into setup_tune_file (job_id, setup_id, tune_file_id, name, author, note, returned)
     values ($1, $2, $3, $4, $5, $6, $7) returning id`,
    [setup.jobId, setup.id, contentId, file.name, file.author, file.note, file.returned ?? false],
  );
  const knownFrom = known.map(({ position, ...file }) => ({ ...file, setup: setupLetter(position) }));
  return { id: rows[0].id, knownFrom };
}

export async function tuneFileContent(
  database: Queryable,
  id: number,
): Promise<{ name: string; content: Buffer } | undefined> {
  const { rows } = await database.query(`select name, content ${tuneFileFrom} where setup_tune_file.id = $1`, [id]);
  return rows[0];
}

export async function photosOfJob(database: Queryable, jobId: number): Promise<Photo[]> {
  const { rows } = await database.query(
    'select id, revision, caption, mime, at from photo where job_id = $1 and removed_at is null order by at, id',
    [jobId],
  );
  return rows.map((row) => recordOf(photo, row));
}

export async function addPhoto(
  database: Queryable,
  jobId: number,
  taken: { caption: string; mime: string; content: Buffer },
): Promise<number> {
  const { rows } = await database.query('insert into photo (job_id, caption, mime) values ($1, $2, $3) returning id', [
    jobId,
    taken.caption,
    taken.mime,
  ]);
  await database.query('insert into photo_content (photo_id, content) values ($1, $2)', [rows[0].id, taken.content]);
  return rows[0].id;
}

/** SHA-256 of a photo's content, as hex. */
export async function photoHash(database: Queryable, id: number): Promise<string | undefined> {
  const { rows } = await database.query<{ sha256: string }>('select sha256 from photo_content where photo_id = $1', [
    id,
  ]);
  return rows[0]?.sha256;
}

export async function photoContent(
  database: Queryable,
  id: number,
): Promise<{ mime: string; content: Buffer } | undefined> {
  const { rows } = await database.query(
    'select mime, content from photo join photo_content on photo_id = photo.id where photo.id = $1',
    [id],
  );
  return rows[0];
}
