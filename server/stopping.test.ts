import { expect, test } from '@jest/globals';
import { silentLog } from '../contract/values/service-log.ts';
import { connected } from '../store/database/database.ts';
import { freshDatabase } from '../store/testing/test-database.ts';
import { eventually, startHere } from './testing/test-server.ts';

test('a server that stops answers what it was asked before', async () => {
  const database = await freshDatabase();
  const errors: object[] = [];
  const { server, recorder, lines } = await startHere(database.url, {
    ...silentLog,
    error: (said) => errors.push(said),
  });
  const ask = (method: string, path: string, body: object) =>
    fetch(`http://127.0.0.1:${server.port}/api${path}`, {
      method,
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
  const { id } = (await (await ask('POST', '/jobs', { vehicle: 'Test car' })).json()) as { id: number };
  await connected(database.url, async (client) => {
    await client.query('begin');
    await client.query('select from job where id = $1 for update', [id]);
    const asked = ask('PATCH', `/jobs/${id}`, { question: 'Is it kept?' });
    await eventually('the change that waits for the lock', async () => {
      const waiting = `select from pg_stat_activity where datname = current_database() and wait_event_type = 'Lock'`;
      return (await client.query(waiting)).rows.length > 0;
    });
    const stopped = server.close();
    setTimeout(() => void client.query('commit'), 100);
    const answer = await asked;
    expect(answer.status).toBe(200);
    expect(await answer.json()).toMatchObject({ question: 'Is it kept?' });
    await stopped;
  });
  expect(errors).toEqual([]);
  lines.close();
  await recorder.close();
  await database.drop();
});
