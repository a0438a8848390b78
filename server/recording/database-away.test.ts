import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { inTransaction } from '../store/database.ts';
import { BenchClient } from '../testing/bench-client.ts';
import { eventually, takeAway, TestServer } from '../testing/test-server.ts';

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(() => server.stop());

test('an instrument that comes while the database is away is told what is on the dyno once it is back', async () => {
  const job = await server.newJob('Away car');
  await server.mount(job);
  const bringBack = await takeAway(server.databaseUrl);
  const client = await BenchClient.connect(server.running.benchLinkPort);
  client.hello({ device: 'told-roller', commands: ['configure'] });
  const problem = await eventually('the problem', async () => (await server.bay()).recorder.problem ?? undefined);
  expect(problem).toMatch(/database does not answer.*tried again/);
  expect(client.received).toEqual([]);
  await bringBack();
  const told = await eventually('being told', () => client.received.find(({ type }) => type === 'configure'));
  expect(told).toMatchObject({ vehicle: 'Away car', setup: 'A' });
  expect((await server.bay()).recorder.problem).toBeNull();
  // Broken connections are told to the log; nothing else went wrong.
  for (const error of server.errors) expect(String(error)).toMatch(/terminat|not currently accepting/);
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
});

test('the recorder’s lock is taken again when the database has been away, so that nobody seals its living runs', async () => {
  const { database } = server.running;
  const held = async () => {
    const { rows } = await database.query<{ held: number }>(
      `select count(*)::int as held from pg_locks join pg_database on pg_database.oid = pg_locks.database
       where locktype = 'advisory' and classid = 731000 and granted and datname = current_database()`,
    );
    return rows[0]!.held;
  };
  expect(await held()).toBe(1);
  const bringBack = await takeAway(server.databaseUrl);
  await bringBack();
  await eventually('the lock', () => held().then((count) => count === 1, () => false)); // prettier-ignore
  for (const error of server.errors.splice(0)) expect(String(error)).toMatch(/terminat|not currently accepting/);
});
