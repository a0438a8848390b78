import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { silentLog } from '../../contract/values/service-log.ts';
import type { Job } from '../../contract/job/records.ts';
import { startRecorder, type RunningRecorder } from '../../recorder/start-recorder.ts';
import { connected, openDatabase, type Database } from '../../store/database/database.ts';
import { addJob, jobWithAll } from '../../store/jobs/jobs.ts';
import { unclaimedRuns } from '../../store/runs/runs.ts';
import { freshDatabase, takeAway, type TestDatabase } from '../../store/testing/test-database.ts';
import { BenchClient } from '../testing/bench-client.ts';
import { MarkedDrive, markedChannels } from '../testing/marked-drive.ts';
import { eventually } from '../testing/test-server.ts';

/**
 * Two shops' data, or one shop's before and after a restore: jobs, setups and
 * runs have the same numbers in both, and the recorder's folder stays.
 */
let first: TestDatabase;
let second: TestDatabase;
let folder: string;
let recorder: RunningRecorder | undefined;
let client: BenchClient | undefined;
const pools: Database[] = [];
beforeEach(async () => {
  [first, second] = [await freshDatabase(), await freshDatabase()];
  // Copies of one template: another data folder has another identity.
  await connected(second.url, (client) => client.query('update database_identity set id = gen_random_uuid()'));
  folder = mkdtempSync(join(tmpdir(), 'suvok-other-data-'));
});
afterEach(async () => {
  client?.close();
  await recorder?.close();
  for (const pool of pools.splice(0)) await pool.end();
  await first.drop();
  await second.drop();
});

const open = ({ url }: TestDatabase) => {
  const pool = openDatabase(url, silentLog);
  pools.push(pool);
  return pool;
};
const begin = async (url: string) =>
  (recorder = await startRecorder({ databaseUrl: url, folder, benchLinkPort: 0, floorBytes: 0, log: silentLog }));
async function jobIn(database: Database, vehicle: string): Promise<Job> {
  const id = await addJob(database, { vehicle, owner: '', question: '', gear: null });
  return (await jobWithAll(database, id))!;
}
/** One pull of an instrument. */
async function pull(): Promise<void> {
  client = await BenchClient.connect(recorder!.benchLinkPort);
  client.hello({ device: 'roller', protocol: 2, instance: 'one', channels: markedChannels });
  await eventually('its place', () =>
    recorder!.bays.state().bays[0]!.devices.some(({ device }) => device === 'roller'),
  );
  const drive = new MarkedDrive((time, values) => client!.frame(time, values));
  drive.laps(1);
  await eventually(
    'the end of its run',
    () => recorder!.journal.unstored.some(({ end }) => end !== undefined) || undefined,
  );
}

/** A pull of a job's car while the first database is away: it is still on the recorder's disk at its next start. */
async function pullWhileAway(job: Job): Promise<void> {
  await begin(first.url);
  await recorder!.bays.mount(1, { jobId: job.id, setupId: job.setups[0]!.id });
  const back = await takeAway(first.url);
  await pull();
  client!.close();
  await recorder!.close();
  await back();
}

test('a pull of one customer’s car never enters another customer’s job of the same number', async () => {
  const [one, other] = [open(first), open(second)];
  const job = await jobIn(one, 'Blue saloon');
  const stranger = await jobIn(other, 'Red coupé');
  expect(stranger.id).toBe(job.id);
  await pullWhileAway(job);
  await begin(second.url);
  const runs = await eventually('the run', async () => {
    const found = await unclaimedRuns(other);
    return found[0]?.state === 'sealed' ? found : undefined;
  });
  expect(runs).toMatchObject([
    {
      jobId: null,
      label: null,
      remarks: [expect.stringMatching(/before the data were restored.*until it is claimed/)],
    },
  ]);
  expect((await jobWithAll(other, stranger.id))!.runs).toEqual([]);
  // The car of the other data is not on the dyno, and that is said until one is put on.
  expect(recorder!.bays.state().bays[0]).toMatchObject({
    mounted: null,
    recorder: { problem: expect.stringMatching(/restored or begun anew.*taken off the dyno/) },
  });
  await recorder!.bays.mount(1, { jobId: stranger.id, setupId: stranger.setups[0]!.id });
  expect(recorder!.bays.state().bays[0]).toMatchObject({
    mounted: { jobId: stranger.id },
    recorder: { problem: null },
  });
});

test('in the same data after a restart the car is still on the dyno, and its run goes to its job', async () => {
  const one = open(first);
  const job = await jobIn(one, 'Blue saloon');
  await pullWhileAway(job);
  await begin(first.url);
  const run = await eventually('the run', async () =>
    (await jobWithAll(one, job.id))!.runs.find(({ state }) => state === 'sealed'),
  );
  expect(run).toMatchObject({ label: 'A1', remarks: [] });
  expect(recorder!.bays.state().bays[0]!.mounted).toEqual({ jobId: job.id, setupId: job.setups[0]!.id });
});

test('data that become other ones under a running recorder are met as such', async () => {
  const one = open(first);
  const job = await jobIn(one, 'Blue saloon');
  await begin(first.url);
  await recorder!.bays.mount(1, { jobId: job.id, setupId: job.setups[0]!.id });
  await connected(first.url, (client) => client.query('update database_identity set id = gen_random_uuid()'));
  await pull();
  const [run] = await eventually('the run', async () => {
    const found = await unclaimedRuns(one);
    return found[0]?.state === 'sealed' ? found : undefined;
  });
  expect(run!.remarks.join(' ')).toMatch(/until it is claimed/);
  await eventually('the car taken off', () => recorder!.bays.state().bays[0]!.mounted === null);
});
