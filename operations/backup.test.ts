import { afterAll, beforeAll, expect, test } from '@jest/globals';
import {
  appendFileSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { silentLog } from '../contract/values/service-log.ts';
import { generatedRun } from '../core/testing/generated-run.ts';
import { findPostgres } from '../launch/postgres-programs.ts';
import { inTransaction, openDatabase } from '../store/database/database.ts';
import { addJob } from '../store/jobs/jobs.ts';
import { migrate } from '../store/database/migrate.ts';
import { addRun } from '../store/runs/runs.ts';
import { storeWhole } from '../store/runs/samples.ts';
import { newRun } from '../store/testing/new-run.ts';
import { freshDatabase } from '../store/testing/test-database.ts';
import { makeBackup, thinOut } from './backup.ts';
import { backupsIn, noteOf, type BackupNote } from './backup-file.ts';
import type pg from 'pg';
import { connected } from '../store/database/database.ts';
import { databaseIdentity } from '../store/database/database-identity.ts';
import type { ReachedDatabase } from './reached-database.ts';
import { restoreBackup, verifyBackup } from './restore.ts';

const folder = mkdtempSync(join(tmpdir(), 'suvok-backups-'));
let database: ReachedDatabase;
let drop: () => Promise<void>;
let file: string;
beforeAll(async () => {
  const fresh = await freshDatabase();
  drop = fresh.drop;
  await migrate(fresh.url);
  const pool = openDatabase(fresh.url, silentLog);
  await addJob(pool, { vehicle: 'Tarrow Six', owner: '', question: '', gear: null });
  for (const seed of [1, 2, 3]) {
    const { time, channels } = generatedRun({ speedNoise: 0.01, seed });
    await inTransaction(pool, async (client) => {
      const run = await addRun(client, newRun({ channels: channels.map(({ name, unit }) => ({ name, unit })) }));
      await storeWhole(client, run, { time, channels }, []);
    });
  }
  await pool.end();
  database = { url: fresh.url, programs: findPostgres()!, folder, running: false, leave: () => Promise.resolve() };
  ({ file } = await makeBackup(database, folder, 'asked'));
});
afterAll(async () => {
  await drop();
  rmSync(folder, { recursive: true });
});

const noteIn = (path: string) => JSON.parse(readFileSync(noteOf(path), 'utf8')) as BackupNote;
const databases = () =>
  connected(database.url, async (client) =>
    (
      await client.query<{ datname: string }>(`select datname from pg_database where datname like 'suvok\\_%'`)
    ).rows.map(({ datname }) => datname),
  );

test('a backup says what it holds, and is for its owner’s eyes only', () => {
  expect(noteIn(file).holds).toMatchObject({ schema: expect.stringMatching(/^00/), counts: { run: 3, job: 1 } });
  expect(noteIn(file).holds.samples).toMatch(/^[0-9a-f]{64}$/);
  for (const path of [file, noteOf(file)]) expect(statSync(path).mode & 0o077).toBe(0);
  expect(readdirSync(folder).filter((name) => name.endsWith('.part'))).toEqual([]);
});

test('it gives back all that went in, and leaves no scratch database behind', async () => {
  await verifyBackup(file, database);
  expect(await databases()).toEqual([]);
});

test('a damaged file is found out before anything is done', async () => {
  const { file: damaged } = await makeBackup(database, mkdtempSync(join(folder, 'damaged-')), 'asked');
  appendFileSync(damaged, 'x');
  await expect(verifyBackup(damaged, database)).rejects.toThrow(/is damaged/);
  rmSync(noteOf(damaged));
  await expect(verifyBackup(damaged, database)).rejects.toThrow(/cannot be checked/);
});

test('a file that gives back other samples, fewer rows or other figures is told of', async () => {
  const note = noteIn(file);
  const tampered = async (holds: Partial<BackupNote['holds']>) => {
    writeFileSync(noteOf(file), JSON.stringify({ ...note, holds: { ...note.holds, ...holds } }));
    const answer = verifyBackup(file, database);
    await expect(answer).rejects.toThrow(/does not give back what went in/);
    return answer.catch((error: Error) => error.message);
  };
  expect(await tampered({ samples: 'f'.repeat(64) })).toMatch(/the samples are not the same/);
  expect(await tampered({ counts: { ...note.holds.counts, run: 4 } })).toMatch(/3 rows of run in place of 4/);
  expect(await tampered({ figures: 'f'.repeat(64) })).toMatch(/figures made of them are not the same/);
  writeFileSync(noteOf(file), JSON.stringify(note));
  expect(await databases()).toEqual([]);
});

test('restored, the data are those of the backup, and what was there before is kept beside them', async () => {
  await connected(database.url, (client) => client.query(`update job set question = 'after the backup'`));
  const held = connected(database.url, async (client) => {
    await client.query('select 1');
    await expect(restoreBackup(file, database)).rejects.toThrow(/Somebody is connected/);
  });
  await held;
  await expect(restoreBackup(file, { ...database, running: true })).rejects.toThrow(/Suvok runs on this data/);
  const { before, notCarried } = await restoreBackup(file, database);
  expect(notCarried).toBeNull();
  const question = (url: string) =>
    connected(
      url,
      async (client) => (await client.query<{ question: string }>('select question from job')).rows[0]!.question,
    );
  expect(await question(database.url)).toBe('');
  const beside = new URL(database.url);
  beside.pathname = `/${before}`;
  expect(await question(beside.toString())).toBe('after the backup');
  await connected(database.url, (client) => client.query(`drop database ${before}`));
});

test('a restore is another database, gives no number out again, and lets no link live again that was taken back', async () => {
  const key = 'a'.repeat(64);
  const inIt = <T>(work: (client: pg.Client) => Promise<T>) => connected(database.url, work);
  await inIt((client) =>
    client.query(
      `insert into shared_link (job_id, view, key_hash, ends_at) select id, '{}', $1, now() + interval '9 days' from job`,
      [key],
    ),
  );
  const { file: withLink } = await makeBackup(database, mkdtempSync(join(folder, 'link-')), 'asked');
  const nextRun = () => inIt(async (client) => (await addRun(client, newRun())).id);
  const identity = () => inIt((client) => databaseIdentity(client));
  const held = () =>
    inIt(
      async (client) =>
        (await client.query('select from shared_link where key_hash = $1 and removed_at is null', [key])).rowCount,
    );
  const [lastRun, was] = [await nextRun(), await identity()];
  await inIt((client) => client.query('update shared_link set removed_at = now()'));
  const { before } = await restoreBackup(withLink, database);
  expect(await nextRun()).toBe(lastRun + 1);
  expect(await identity()).not.toBe(was);
  expect(await held()).toBe(0);
  await inIt((client) => client.query(`drop database ${before}`));
});

test('a restore in the place of data that cannot be read goes on, and says what it could not carry over', async () => {
  await connected(database.url, (client) => client.query('drop table shared_link_opened, shared_link'));
  const { before, notCarried } = await restoreBackup(file, database);
  expect(notCarried).toMatch(/could not be read.*numbers.*given out again.*links/);
  await connected(database.url, (client) => client.query(`drop database ${before}`));
});

test('data of a newer program are neither opened nor put in place', async () => {
  const other = await freshDatabase();
  await migrate(other.url);
  await connected(other.url, (client) =>
    client.query(`insert into migration (name, run_on) values ('0099_later', now())`),
  );
  await expect(migrate(other.url)).rejects.toThrow(/written by a newer Suvok.*0099_later.*nothing was changed/);
  const { file: newer } = await makeBackup(
    { ...database, url: other.url },
    mkdtempSync(join(folder, 'newer-')),
    'asked',
  );
  await expect(restoreBackup(newer, database)).rejects.toThrow(/written by a newer Suvok/);
  await other.drop();
});

test('daily ones are thinned out; those that somebody asked for stay', async () => {
  const place = mkdtempSync(join(folder, 'daily-'));
  const from = Date.parse('2026-11-27T03:00:00Z');
  const asked = await makeBackup(database, place, 'asked', new Date(from - 90 * 24 * 3600e3));
  for (const hours of [0, 1, 24, 25]) await makeBackup(database, place, 'daily', new Date(from - hours * 3600e3));
  expect(await thinOut(place)).toBe(2);
  expect((await backupsIn(place)).map(({ note }) => note.madeAt)).toEqual([
    '2026-08-29T03:00:00.000Z',
    '2026-11-26T03:00:00.000Z',
    '2026-11-27T03:00:00.000Z',
  ]);
  expect(existsSync(asked.file)).toBe(true);
});

test('data of an older program are backed up before they are brought up to date: its schema lacks what this one reads', async () => {
  const older = await freshDatabase();
  await migrate(older.url);
  await connected(older.url, async (client) => {
    await client.query('alter table run drop column recorded_by');
    await client.query(`delete from migration where name = (select name from migration order by id desc limit 1)`);
    await client.query(`insert into vehicle (name) values ('Tarrow Six')`);
  });
  const place = { ...database, url: older.url };
  const made = await makeBackup(place, mkdtempSync(join(folder, 'older-')), 'upgrade');
  expect(made.note.holds).toMatchObject({ figures: '', counts: { vehicle: 1 } });
  await verifyBackup(made.file, place);
  await older.drop();
});
