import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { BayState } from '../../contract/bays/live.ts';
import { silentLog } from '../../contract/values/service-log.ts';
import { startRecorder } from '../../recorder/start-recorder.ts';
import { inTransaction } from '../../store/database/database.ts';
import { takeAway } from '../../store/testing/test-database.ts';
import { BenchClient } from '../testing/bench-client.ts';
import { eventually, TestServer } from '../testing/test-server.ts';

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(() => server.stop());

/** Broken connections are told to the log; nothing else may go wrong. */
function onlyBroken(): void {
  for (const error of server.errors.splice(0)) expect(String(error)).toMatch(/terminat|not currently accepting|ECONN/);
}

test('with the database away an instrument is told what is on the dyno, and pulls are recorded and arrive later', async () => {
  const job = await server.newJob('Away car');
  await server.mount(job);
  const bringBack = await takeAway(server.databaseUrl);
  const client = await BenchClient.connect(server.running.benchLinkPort);
  client.hello({ device: 'told-roller', commands: ['configure'] });
  const told = await eventually('being told', () => client.received.find(({ type }) => type === 'configure'));
  expect(told).toMatchObject({ vehicle: 'Away car', setup: 'A' });
  const ended = (count: number) =>
    eventually(
      `${count} runs on the disk`,
      () => server.recorder.journal.unstored.filter(({ end }) => end).length === count,
    );
  let time = client.pull();
  await ended(1);
  time = client.pull({}, time + 1);
  await ended(2);
  client.pull({ toRpm: 5000 }, time + 1);
  await ended(3);
  await eventually('the sentence', async () =>
    /database does not answer.*3 runs wait on this machine’s disk/.test((await server.bay()).recorder.problem ?? ''),
  );
  const { recorder } = await server.bay();
  // What waits keeps nobody from the next run.
  expect(recorder.state).toBe('idle');
  await bringBack();
  const runs = await eventually('the runs', async () => {
    const found = await server.runs(job).catch(() => []);
    return found.filter(({ state }) => state === 'sealed').length === 3 ? found : undefined;
  });
  expect(runs.map(({ label }) => label).sort()).toEqual(['A1', 'A2', 'A3']);
  for (const run of runs) expect(run.samples).toBeGreaterThan(1000);
  await eventually('the end of the trouble', async () => (await server.bay()).recorder.problem === null);
  onlyBroken();
  client.close();
});

test('a connection that breaks in the middle of an act fails the act, and nothing else', async () => {
  const { database } = server.running;
  const act = inTransaction(database, async (client) => {
    const { rows } = await client.query<{ pid: number }>('select pg_backend_pid() as pid');
    await database.query('select pg_terminate_backend($1)', [rows[0]!.pid]);
    // Long enough for the connection's own error to arrive while no query is under way.
    await new Promise((resolve) => setTimeout(resolve, 100));
    return client.query('select 1');
  });
  await expect(act).rejects.toThrow();
  expect((await database.query('select 1 as one')).rows).toEqual([{ one: 1 }]);
  onlyBroken();
});

test('two recorders never write one folder', async () => {
  const { folder } = server;
  const second = startRecorder({
    databaseUrl: server.databaseUrl,
    folder,
    benchLinkPort: 0,
    floorBytes: 0,
    log: silentLog,
  });
  await expect(second).rejects.toMatchObject({ code: 'EADDRINUSE' });
});

test('a recorder whose place was taken writes nothing more to the database, and keeps what it records', async () => {
  const job = await server.newJob('Twice');
  await server.mount(job);
  // As a copy of its folder would do that somebody started elsewhere.
  await server.running.database.query('update recorder set term = term + 1');
  const client = await BenchClient.connect(server.running.benchLinkPort);
  client.hello({ device: 'displaced-roller' });
  client.pull();
  const problem = async () => ((await server.bay()) as BayState).recorder.problem;
  await eventually('the sentence', async () =>
    /taken this one’s place.*stays on this machine’s disk/.test((await problem()) ?? ''),
  );
  await eventually('the run on the disk', () => server.recorder.journal.unstored.some(({ end }) => end));
  expect(await server.runs(job)).toEqual([]);
  client.close();
});
