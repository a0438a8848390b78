import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { WebSocket } from 'ws';
import { subjects, touchedBy } from '../contract/job/changes.ts';
import { dataHeader, liveMessage, type LiveMessage } from '../contract/bays/live.ts';
import { BenchClient } from './testing/bench-client.ts';
import { eventually, TestServer } from './testing/test-server.ts';

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(async () => {
  await server.stop();
  expect(server.errors).toEqual([]);
});

/** A page's ears. */
function listen(origin = server.origin): { messages: LiveMessage[]; rows: Float64Array[]; socket: WebSocket } {
  const socket = new WebSocket(`${server.origin.replace('http', 'ws')}/live`, { origin });
  const heard = { messages: [] as LiveMessage[], rows: [] as Float64Array[], socket };
  socket.on('message', (data: Buffer, binary) => {
    if (binary) heard.rows.push(new Float64Array(Uint8Array.from(data).buffer));
    else heard.messages.push(liveMessage.parse(JSON.parse(data.toString())));
  });
  socket.on('open', () => socket.send(JSON.stringify({ type: 'watch', bay: 1 })));
  socket.on('error', () => undefined);
  return heard;
}

test('a page hears the bay, the names of the columns, and every sample in order', async () => {
  const { messages, rows, socket } = listen();
  await eventually('the bay', () => messages.some((message) => message.type === 'bays'));
  const client = await BenchClient.connect(server.running.benchLinkPort);
  client.hello();
  await eventually('the columns', () =>
    messages.find((message) => message.type === 'columns' && message.columns.join() === 'time,rollerSpeed,engineSpeed'),
  );
  for (let frame = 0; frame < 100; frame++) client.frame(frame / 100, [50 + frame, null]);
  await eventually('all rows', () => rows.reduce((sum, block) => sum + block.length, 0) === 300);
  const values = rows.flatMap((block) => [...block]);
  expect(values.filter((_, index) => index % 3 === 1)).toEqual(Array.from({ length: 100 }, (_, frame) => 50 + frame));
  expect(values[2]).toBeNaN();
  await eventually('the dyno in the bay', () =>
    messages.some((message) => message.type === 'bays' && message.bays[0]!.devices.some((device) => device.heard)),
  );
  client.close();
  socket.close();
});

test('a change made by any process on the database is told', async () => {
  const { messages, socket } = listen();
  const job = await server.newJob();
  await eventually('the news', () =>
    messages.some((message) => message.type === 'changed' && message.table === 'setup' && message.jobId === job.id),
  );
  await server.running.database.query(`update job set question = 'from elsewhere' where id = $1`, [job.id]);
  await eventually(
    'the second news',
    () => messages.filter((message) => message.type === 'changed' && message.jobId === job.id).length >= 2,
  );
  socket.close();
});

test('a page that comes just after a change hears of it: what it had asked for first may be from before', async () => {
  const job = await server.newJob();
  const heard = listen();
  await eventually('the news', () =>
    heard.messages.some((message) => message.type === 'changed' && message.table === 'job' && message.jobId === job.id),
  );
  heard.socket.close();
});

test('changes that nobody listened to are told as a change of anything', async () => {
  const { messages, socket } = listen();
  await eventually('the bay', () => messages.some((message) => message.type === 'bays'));
  await server.asOwner(
    `select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and query in ('select id from database_identity', 'listen suvok_changed')`,
  );
  const told = await eventually('the news', () =>
    messages.find((message) => message.type === 'changed' && touchedBy([message.table]).length === subjects.length),
  );
  expect(told).toHaveProperty('jobId', null);
  socket.close();
  server.errors.length = 0;
});

test('a page hears which data it shows, and is refused with a sentence what it asks of others', async () => {
  const { messages, socket } = listen();
  const data = await eventually('the data', () => messages.find((message) => message.type === 'data'));
  expect(messages[0]).toEqual(data);
  const ask = (id: string) => fetch(`${server.origin}/api/jobs`, { headers: { [dataHeader]: id } });
  expect((await ask(data.type === 'data' ? data.id : '')).status).toBe(200);
  const refused = await ask('00000000-0000-4000-8000-000000000000');
  expect(refused.status).toBe(409);
  expect(await refused.text()).toMatch(/restored or begun anew.*Load the page anew; nothing was changed/);
  socket.close();
});

test('data that become other ones while pages are open are told of at once', async () => {
  const { messages, socket } = listen();
  const ids = () => messages.flatMap((message) => (message.type === 'data' ? [message.id] : []));
  await eventually('the data', () => ids().length === 1);
  await server.asOwner('update database_identity set id = gen_random_uuid()');
  // As a restore does: every connection breaks.
  await server.asOwner(
    `select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and query in ('select id from database_identity', 'listen suvok_changed')`,
  );
  await eventually('the other data', () => ids().length === 2);
  expect(new Set(ids()).size).toBe(2);
  socket.close();
  server.errors.length = 0;
});

test('a page of another origin is not let in', async () => {
  const { messages, socket } = listen('https://elsewhere.example');
  await new Promise((resolve) => socket.once('close', resolve));
  expect(messages).toEqual([]);
});
