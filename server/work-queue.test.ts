import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { silentLog, type Log } from '../contract/values/service-log.ts';
import type { Job } from '../contract/job/records.ts';
import { writeRecordingCsv } from '../core/exchange/recordings/write-csv.ts';
import { generatedRun } from '../core/testing/generated-run.ts';
import { testDyno } from '../core/testing/test-car.ts';
import { connected, openDatabase, type Database } from '../store/database/database.ts';
import { socketPlace } from '../recorder/local-link/socket-place.ts';
import { startRecorder } from '../recorder/start-recorder.ts';
import { migrate } from '../store/database/migrate.ts';
import { asApplication, freshDatabase, takeAway } from '../store/testing/test-database.ts';
import { startServer, type RunningServer } from './server.ts';
import { eventually } from './testing/test-server.ts';
import { WorkQueue } from './work-queue.ts';
import { shortOrWhole } from '../core/testing/short-or-whole.ts';

/** The queue looks no oftener. */
const brisk = { lookS: 0.5, tendS: 1 };

let ownerUrl: string;
let url: string;
let drop: () => Promise<void>;
let database: Database;
const ends: (() => Promise<void>)[] = [];
beforeEach(async () => {
  ({ url: ownerUrl, drop } = await freshDatabase());
  await migrate(ownerUrl);
  // What failed is tried again after a second here, not after five.
  await connected(ownerUrl, (client) => client.query('update pgboss.queue set retry_delay = 1'));
  url = await asApplication(ownerUrl);
  database = openDatabase(url, silentLog);
});
afterEach(async () => {
  for (const end of ends.splice(0)) await end();
  await database.end();
  await drop();
});

async function queue(log: Log = silentLog): Promise<WorkQueue> {
  const made = new WorkQueue(database, log, brisk);
  await made.start();
  ends.push(() => made.stop());
  return made;
}

/** A server that says how many powers of runs it has made. @param recorder its socket @param lookForWorkMs how often it looks for some */
async function worker(recorder: string, lookForWorkMs = 50): Promise<{ server: RunningServer; made: () => number }> {
  let made = 0;
  const log = { ...silentLog, info: (fields: object) => void (made += (fields as { made?: number }).made ?? 0) };
  return {
    server: await startServer({ databaseUrl: url, port: 0, recorder, log, lookForWorkMs, queuePace: brisk }),
    made: () => made,
  };
}

test('the powers of many runs are made once each, and go on when the server that was at it stops', async () => {
  // A server that hears no recorder waits for it.
  const folder = mkdtempSync(join(tmpdir(), 'suvok-recorder-'));
  const recorder = await startRecorder({ databaseUrl: url, folder, benchLinkPort: 0, floorBytes: 0, log: silentLog });
  ends.push(() => recorder.close());
  const { server: idle } = await worker(socketPlace(folder), 3_600_000);
  const api = `http://127.0.0.1:${idle.port}/api`;
  const job = (await (
    await fetch(`${api}/jobs`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: '{"vehicle":"Worked on"}',
    })
  ).json()) as Job;
  const runs = 12;
  const text = writeRecordingCsv(generatedRun({}));
  for (let run = 0; run < runs; run++) {
    const form = new FormData();
    form.append('file', new Blob([text]), 'run.csv');
    form.append(
      'settings',
      JSON.stringify({
        setupId: job.setups[0]!.id,
        dyno: testDyno,
        air: null,
        engineToDrumRatio: null,
        startedAt: '2026-05-04T09:00:00Z',
      }),
    );
    expect((await fetch(`${api}/imports`, { method: 'POST', body: form })).status).toBe(201);
  }
  await idle.close();
  const one = await worker(socketPlace(folder));
  const stored = async () =>
    (await database.query<{ made: number }>('select count(*)::int as made from run_power')).rows[0]!.made;
  await eventually('a beginning', async () => (await stored()) > 0);
  const other = await worker(socketPlace(folder));
  await one.server.close();
  await eventually('the end', async () => (await stored()) === runs);
  await other.server.close();
  expect(one.made() + other.made()).toBe(runs);
  expect(other.made()).toBeGreaterThan(0);
});

test('work is asked for by many and done by one at a time', async () => {
  const [first, second] = [await queue(), await queue()];
  let [now, most, times] = [0, 0, 0];
  const does = async () => {
    times++;
    most = Math.max(most, ++now);
    await new Promise((resolve) => setTimeout(resolve, 200));
    now--;
  };
  for (let asks = 0; asks < 20; asks++) await (asks % 2 ? first : second).ask('run-powers');
  await first.work('run-powers', does);
  await second.work('run-powers', does);
  await eventually('it being done', () => times > 0 && now === 0);
  expect([most, times]).toEqual([1, 1]);
});

test('work that failed is told of and done again', async () => {
  const told: unknown[] = [];
  const one = await queue({
    ...silentLog,
    warn: (fields: object) => void told.push(String((fields as { err: Error }).err.message)),
  });
  let times = 0;
  await one.work('run-powers', () => (++times === 1 ? Promise.reject(new Error('no luck')) : Promise.resolve()));
  await one.ask('run-powers');
  await eventually('the second time', () => times === 2);
  expect(told).toEqual(['no luck']);
});

test('while the database is away nothing is done, which is told once; then it goes on', async () => {
  const told: unknown[] = [];
  const one = await queue({ ...silentLog, warn: (fields: object) => void told.push(fields) });
  let times = 0;
  await one.work('run-powers', () => Promise.resolve(void times++));
  const back = await takeAway(ownerUrl);
  for (let asks = 0; asks < 3; asks++) await one.ask('run-powers');
  expect(told).toHaveLength(1);
  await back();
  await eventually('the queue', async () => {
    await one.ask('run-powers');
    return times > 0;
  });
});

test('what a server that died had at hand is taken up by another one within ten seconds, though more was asked for', async () => {
  const warned: unknown[] = [];
  const log = { ...silentLog, warn: (_fields: object, words: string) => void warned.push(words) };
  const dying = openDatabase(url, silentLog);
  const dead = new WorkQueue(dying, log, brisk);
  await dead.start();
  await dead.ask('run-powers');
  let finish: (() => void) | undefined;
  await dead.work('run-powers', () => new Promise<void>((resolve) => (finish = resolve)));
  await eventually('it being begun', () => finish);
  // The next piece waits, as it does whenever pages go on asking.
  await dead.ask('run-powers');
  let times = 0;
  // At its usual pace, as a shop has it.
  const one = new WorkQueue(database, log);
  await one.start();
  ends.push(() => one.stop());
  await one.work('run-powers', () => Promise.resolve(void times++));
  // As long as somebody is at it nobody else is.
  await new Promise((resolve) => setTimeout(resolve, 9000));
  expect([times, warned]).toEqual([0, []]);
  const diedAt = Date.now();
  await connected(ownerUrl, (client) =>
    client.query(
      `select pg_terminate_backend(pid) from pg_locks where locktype = 'advisory' and database = (select oid from pg_database where datname = current_database())`,
    ),
  );
  await eventually('it being done', () => times > 0);
  expect(Date.now() - diedAt).toBeLessThan(shortOrWhole(120_000, 10_000));
  expect(warned).toContain('whoever did this work has died; it is done again');
  finish!();
  await dead.stop();
  await dying.end();
});
