import { expect, test } from '@jest/globals';
import type { Job } from '../../contract/job/records.ts';
import { openDatabase } from '../../store/database/database.ts';
import { BenchClient } from '../testing/bench-client.ts';
import { freshDatabase } from '../../store/testing/test-database.ts';
import { eventually, startHere } from '../testing/test-server.ts';

type Entry = { what: string } & Record<string, unknown>;

function remembering(entries: Entry[]) {
  const keep = (fields: object, what: string) => void entries.push({ ...fields, what });
  return { info: keep, warn: keep, error: keep };
}

test('the log tells of instruments, runs and refusals by ids and counts, and of nobody', async () => {
  const entries: Entry[] = [];
  const { url, drop } = await freshDatabase();
  const { server, recorder } = await startHere(url, remembering(entries));
  const api = (method: string, path: string, body?: unknown) =>
    fetch(`http://127.0.0.1:${server.port}/api${path}`, {
      method,
      ...(body ? { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) } : {}),
    });
  const job = (await (await api('POST', '/jobs', { vehicle: 'Secret coupé', owner: 'N. Body' })).json()) as Job;
  await api('PUT', '/bays/1/mounted', { jobId: job.id, setupId: job.setups[0]!.id });
  const client = await BenchClient.connect(recorder.benchLinkPort);
  client.hello({ device: 'logged-roller' });
  client.pull();
  const ended = await eventually('the run’s end', () => entries.find(({ what }) => what === 'run ended'));
  expect(ended).toMatchObject({ device: 'logged-roller', as: 'sealed', key: expect.any(String) });
  const stored = await eventually('its being stored', () => entries.find(({ what }) => what === 'run stored'));
  expect(stored).toEqual({ what: 'run stored', key: ended.key, runId: expect.any(Number) });
  expect(ended.rows).toBeGreaterThan(1000);
  client.close();
  await eventually('its going', () => entries.find(({ what }) => what === 'instrument went'));
  // On a busy machine a statement may be slow, which is another test's concern.
  const told = entries.map(({ what }) => what).filter((what) => what !== 'slow statement');
  expect(told).toEqual(['instrument came', 'run begins', 'run ended', 'run stored', 'instrument went']);
  await api('GET', '/jobs/999');
  expect(entries.filter(({ what }) => what === 'refused')).toEqual([
    { what: 'refused', method: 'GET', path: '/api/jobs/999', status: 404 },
  ]);
  expect(JSON.stringify(entries)).not.toMatch(/Secret|Body/);
  await server.close();
  await recorder.close();
  await drop();
});

test('a statement that takes long is written down, without what it was asked with', async () => {
  const entries: Entry[] = [];
  const { url, drop } = await freshDatabase();
  const database = openDatabase(url, remembering(entries));
  await database.query('select 1');
  await database.query('select pg_sleep($1), $2::text', [0.4, 'N. Body']);
  expect(entries).toEqual([
    { what: 'slow statement', ms: expect.any(Number), statement: 'select pg_sleep($1), $2::text' },
  ]);
  await database.end();
  await drop();
});
