import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { WebSocket } from 'ws';
import { silentLog } from '../contract/values/service-log.ts';
import { liveMessage, type BayState, type LiveMessage } from '../contract/bays/live.ts';
import type { Run } from '../contract/job/records.ts';
import { socketPlace } from '../recorder/local-link/socket-place.ts';
import { startServer, type RunningServer } from './server.ts';
import { BenchClient } from './testing/bench-client.ts';
import { eventually, TestServer } from './testing/test-server.ts';

/** Two servers on one database and beside one recorder: neither keeps anything that matters to itself. */
let first: TestServer;
let second: RunningServer;
beforeAll(async () => {
  first = await TestServer.start();
  second = await startServer({
    databaseUrl: first.databaseUrl,
    port: 0,
    recorder: socketPlace(first.folder),
    log: silentLog,
  });
});
afterAll(async () => {
  await second.close();
  await first.stop();
  expect(first.errors).toEqual([]);
});

const ofSecond = async <T>(path: string, method = 'GET', body?: unknown) =>
  (await (
    await fetch(`http://127.0.0.1:${second.port}/api${path}`, {
      method,
      ...(body ? { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) } : {}),
    })
  ).json()) as T;

test('what is put on the dyno through one stands there on the other, whose pages see the live run and hear of the change', async () => {
  const messages: LiveMessage[] = [];
  let samples = 0;
  const page = new WebSocket(`ws://127.0.0.1:${second.port}/live`, { origin: `http://127.0.0.1:${second.port}` });
  page.on('message', (data: Buffer, binary) => {
    if (binary) samples += data.length / 8 / 3;
    else messages.push(liveMessage.parse(JSON.parse(data.toString())));
  });
  page.on('open', () => page.send(JSON.stringify({ type: 'watch', bay: 1 })));
  await eventually('the bay', () => messages.some(({ type }) => type === 'bays'));
  const job = await first.newJob();
  await first.mount(job);
  await eventually('it on the other', async () => (await ofSecond<BayState>('/bays/1')).mounted?.jobId === job.id);
  const client = await BenchClient.connect(first.running.benchLinkPort);
  client.hello();
  client.pull();
  const run = await eventually('the run', async () =>
    (await ofSecond<{ runs: Run[] }>(`/jobs/${job.id}`)).runs.find(({ state }) => state === 'sealed'),
  );
  expect(run).toMatchObject({ label: 'A1' });
  expect(samples).toBeGreaterThan(1000);
  expect(messages).toContainEqual({ type: 'changed', table: 'run', jobId: job.id });
  // And the other way round.
  await ofSecond(`/runs/${run.id}`, 'PATCH', { note: 'said to the second' });
  expect((await first.runs(job))[0]!.note).toBe('said to the second');
  client.close();
  page.close();
});

test('a server that goes leaves the other, the recorder and what is on the dyno as they are', async () => {
  const third = await startServer({
    databaseUrl: first.databaseUrl,
    port: 0,
    recorder: socketPlace(first.folder),
    log: silentLog,
  });
  await third.close();
  expect((await ofSecond<BayState>('/bays/1')).recorder.problem).toBeNull();
  expect((await first.bay()).recorder.problem).toBeNull();
});

test('while the recorder is away pages are told so, and what is asked of it is refused with a sentence', async () => {
  const alone = await startServer({
    databaseUrl: first.databaseUrl,
    port: 0,
    recorder: socketPlace(`${first.folder}-none`),
    log: silentLog,
  });
  const address = `http://127.0.0.1:${alone.port}/api`;
  const bay = (await (await fetch(`${address}/bays/1`)).json()) as BayState;
  expect(bay.recorder.problem).toMatch(/recorder does not answer; it is being started again/);
  const arm = await fetch(`${address}/bays/1/arm`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: '{}',
  });
  expect([arm.status, ((await arm.json()) as { error: string }).error]).toEqual([
    422,
    expect.stringMatching(/does not answer.*kept/),
  ]);
  // The jobs are there all the same.
  expect((await fetch(`${address}/jobs`)).status).toBe(200);
  await alone.close();
});
