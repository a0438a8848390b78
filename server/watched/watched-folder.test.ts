import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdtempSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Job, Run } from '../../contract/job/records.ts';
import type { WatchedFolder } from '../../contract/shop/watched-folder.ts';
import { guessedMapping, headingsKey } from '../../core/exchange/loggers/log-mapping.ts';
import { readLogTable } from '../../core/exchange/loggers/log-table.ts';
import { writeRecordingCsv } from '../../core/exchange/recordings/write-csv.ts';
import { valuesOf } from '../../core/recording/recording.ts';
import { generatedRun } from '../../core/testing/generated-run.ts';
import { testDyno, usualTorque } from '../../core/testing/test-car.ts';
import { TestServer } from '../testing/test-server.ts';

let server: TestServer;
let folder: string;
let job: Job;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'suvok-dropped-'));
  server = await TestServer.start({ completeMs: 150 });
  job = await server.newJob();
});
afterAll(async () => {
  await server.stop();
  rmSync(folder, { recursive: true, force: true });
  expect(server.errors).toEqual([]);
});

const state = () => server.json<WatchedFolder>('GET', '/api/watched-folder');
/** What became of a file, once it is known. */
async function became(name: string): Promise<WatchedFolder['files'][number]> {
  for (let look = 0; look < 200; look++) {
    const found = (await state()).files.find((file) => file.name === name && file.outcome !== 'reading');
    if (found) return found;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error(`nothing became of ${name}`);
}
/** Each seed another car's pull: their engine speeds are not alike. */
const pull = (seed: number) =>
  generatedRun({ seed, speedNoise: 0.01, drumTorque: (rpm) => (0.6 + 0.2 * seed) * usualTorque(rpm) });
const csv = (seed: number) => writeRecordingCsv(pull(seed));

/** The same pull as a logger saw it: its own clock, engine speed and λ. */
function logged(seed: number): string {
  const { time, channels } = pull(seed);
  const rpm = valuesOf({ time, channels }, 'engineSpeed')!;
  const rows = Array.from(time.keys())
    .filter((at) => at % 10 === 0)
    .map((at) => `${(time[at]! + 7.3).toFixed(3)};${rpm[at]!.toFixed(0)};0.88`);
  return ['Time [s];RPM [rpm];Lambda', ...rows].join('\n');
}

test('there must be such a folder, and its whole path', async () => {
  expect((await server.request('PUT', '/api/watched-folder', { path: 'here' })).status).toBe(422);
  expect(await (await server.request('PUT', '/api/watched-folder', { path: join(folder, 'none') })).text()).toContain(
    'is no folder on the machine',
  );
  expect((await state()).path).toBeNull();
});

test('what is dropped is taken once, when it is complete; what cannot be is named and kept', async () => {
  writeFileSync(join(folder, 'before.csv'), csv(1));
  await server.json('PUT', '/api/watched-folder', { path: folder });
  // A file that lay there before is taken as well; without a car on the dyno it waits, and says so.
  expect(await became('before.csv')).toMatchObject({
    outcome: 'refused',
    words: expect.stringContaining('No car is on a dyno'),
    runs: [],
  });
  await server.mount(job);
  const { files } = await state();
  await server.request('POST', `/api/watched-files/${files[0]!.id}/again`, {});
  expect(await became('before.csv')).toMatchObject({
    outcome: 'refused',
    words: expect.stringContaining('tells which dyno'),
  });
  // Once the job has a run, its machine is taken.
  const form = new FormData();
  form.append('file', new Blob([csv(2)]), 'by-hand.csv');
  form.append(
    'settings',
    JSON.stringify({
      setupId: job.setups[0]!.id,
      dyno: testDyno,
      air: null,
      engineToDrumRatio: null,
      startedAt: '2026-03-02T10:00:00Z',
      gear: '4th',
    }),
  );
  expect((await fetch(`${server.origin}/api/imports`, { method: 'POST', body: form })).status).toBe(201);
  const when = new Date('2026-03-02T11:30:00Z');
  writeFileSync(join(folder, 'dropped.csv'), csv(3));
  utimesSync(join(folder, 'dropped.csv'), when, when);
  expect(await became('dropped.csv')).toMatchObject({ outcome: 'run', runs: [{ jobId: job.id, label: 'A2' }] });
  const run = (await server.json<Job>('GET', `/api/jobs/${job.id}`)).runs.find(({ label }) => label === 'A2')!;
  expect(run).toMatchObject({ gear: '4th', dyno: testDyno, startedAt: when.toISOString(), kind: 'power' });
  // The same under another name is the same file.
  writeFileSync(join(folder, 'copy.csv'), csv(3));
  writeFileSync(join(folder, 'notes.csv'), 'nothing that could be read\nat all');
  expect((await became('notes.csv')).outcome).toBe('refused');
  const after = await state();
  expect(after.files.some(({ name }) => name === 'copy.csv')).toBe(false);
  expect((await server.json<Job>('GET', `/api/jobs/${job.id}`)).runs).toHaveLength(2);
});

test('a logger’s file joins the runs that it holds, once its columns are known', async () => {
  writeFileSync(join(folder, 'ecu.csv'), logged(3));
  const refused = await became('ecu.csv');
  expect(refused.words).toContain('Its columns are not known yet');
  const table = readLogTable(logged(3));
  await server.json('PUT', '/api/log-sources', {
    headings: headingsKey(table.columns),
    name: 'engine box',
    mapping: guessedMapping(table),
    probe: { delayS: 0, offset: 0 },
  });
  await server.request('POST', `/api/watched-files/${refused.id}/again`, {});
  const joined = await became('ecu.csv');
  expect(joined).toMatchObject({ outcome: 'log', runs: [{ label: 'A2' }] });
  const run = (await server.json<Job>('GET', `/api/jobs/${job.id}`)).runs.find(({ label }) => label === 'A2') as Run;
  expect(run.logs).toMatchObject([
    { name: 'engine box, ecu.csv', channels: [{ name: 'engineSpeed' }, { name: 'lambda' }] },
  ]);
});

test('a file that was taken is not taken again, and nobody asks for one that is not there', async () => {
  const { files } = await state();
  const run = files.find(({ outcome }) => outcome === 'run')!;
  expect((await server.request('POST', `/api/watched-files/${run.id}/again`, {})).status).toBe(404);
  expect((await server.request('POST', '/api/watched-files/99999/again', {})).status).toBe(404);
  await server.json('PUT', '/api/watched-folder', { path: null });
  writeFileSync(join(folder, 'late.csv'), csv(9));
  await new Promise((resolve) => setTimeout(resolve, 600));
  const after = await state();
  expect(after.path).toBeNull();
  expect(after.files.some(({ name }) => name === 'late.csv')).toBe(false);
});
