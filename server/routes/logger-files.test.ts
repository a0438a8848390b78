import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { LogSource } from '../../contract/instruments/logger-file.ts';
import type { Job, Run } from '../../contract/job/records.ts';
import { recordingFromBytes, recordingToBytes } from '../../core/exchange/recordings/recording-bytes.ts';
import { writeRecordingCsv } from '../../core/exchange/recordings/write-csv.ts';
import { generatedRun } from '../../core/testing/generated-run.ts';
import { testDyno } from '../../core/testing/test-car.ts';
import { TestServer } from '../testing/test-server.ts';

let server: TestServer;
let job: Job;
let run: Run;
beforeAll(async () => {
  server = await TestServer.start();
  job = await server.newJob();
  const form = new FormData();
  form.append('file', new Blob([writeRecordingCsv(generatedRun({ speedNoise: 0.01 }))]), 'run.csv');
  form.append(
    'settings',
    JSON.stringify({
      setupId: job.setups[0]!.id,
      dyno: testDyno,
      air: null,
      engineToDrumRatio: null,
      startedAt: '2026-03-02T10:00:00Z',
    }),
  );
  const response = await fetch(`${server.origin}/api/imports`, {
    method: 'POST',
    body: form,
    headers: { accept: 'application/json' },
  });
  ({ run } = (await response.json()) as { run: Run });
});
afterAll(async () => {
  await server.stop();
  expect(server.errors).toEqual([]);
});

const log = (over: { time?: Float64Array; names?: string[] } = {}) => {
  const time = over.time ?? Float64Array.from({ length: 400 }, (_, at) => 100 + at / 20);
  const names = over.names ?? ['engineSpeed', 'lambda'];
  return recordingToBytes({
    time,
    channels: names.map((name, at) => ({ name, unit: at === 0 ? 'rpm' : '–', values: time.map((_, row) => row + at) })),
  });
};
function join(bytes: Uint8Array, settings: object = { name: 'ecu', probe: { delayS: 0.1, offset: 0 } }, id = run.id) {
  const form = new FormData();
  form.append('file', new Blob([bytes as BlobPart]), 'samples');
  form.append('settings', JSON.stringify(settings));
  return fetch(`${server.origin}/api/runs/${id}/logs`, { method: 'POST', body: form });
}

test('a logger’s recording joins a run as it came, is taken off, and the act is undone', async () => {
  const joined = (await (await join(log())).json()) as Run;
  expect(joined.logs).toMatchObject([
    {
      source: 1,
      name: 'ecu',
      probe: { delayS: 0.1 },
      channels: [
        { name: 'engineSpeed', unit: 'rpm' },
        { name: 'lambda', unit: '–' },
      ],
    },
  ]);
  const samples = await server.request('GET', `/api/runs/${run.id}/recording?source=1`);
  expect(recordingFromBytes(await samples.arrayBuffer())).toEqual(recordingFromBytes(Uint8Array.from(log()).buffer));
  // A browser keeps them under the file's own key as well: in restored data another file may have this number.
  const kept = (mark: string) => server.request('GET', `/api/recordings?of=${run.key}-1${mark}`);
  const own = `-${joined.logs[0]!.key!.slice(0, 8)}`;
  expect([(await kept(own)).status, (await kept('')).status, (await kept('-00000000')).status]).toEqual([
    200, 200, 404,
  ]);
  const off = await server.request('DELETE', `/api/runs/${run.id}/logs/1`);
  expect(((await off.json()) as Run).logs).toEqual([]);
  // Another one has a number of its own: the samples of the first are still there.
  expect(((await (await join(log({ names: ['engineSpeed', 'boost'] }))).json()) as Run).logs).toMatchObject([
    { source: 2 },
  ]);
  await server.request('DELETE', `/api/runs/${run.id}/logs/2`);
  expect((await server.request('POST', `/api/acts/${off.headers.get('suvok-act')}/undo`)).status).toBeLessThan(300);
  expect((await server.json<Run>('GET', `/api/runs/${run.id}`)).logs.map(({ source }) => source)).toEqual([1]);
  expect((await server.request('DELETE', `/api/runs/${run.id}/logs/9`)).status).toBe(404);
});

test.each<[string, () => Promise<Response>, number, RegExp]>([
  ['no such run', () => join(log(), undefined, 99_999), 404, /no such run/],
  ['cut short', () => join(log().slice(0, 300)), 400, /cut short or of another form/],
  ['something else', () => join(new TextEncoder().encode('words')), 400, /of another form/],
  ['a time that steps back', () => join(log({ time: Float64Array.of(0, 1, 0.5, 2) })), 400, /time does not advance/],
  ['two channels of one name', () => join(log({ names: ['lambda', 'lambda'] })), 400, /one name/],
  ['no name', () => join(log(), { name: '', probe: { delayS: 0, offset: 0 } }), 400, /settings were not understood/],
])('%s is refused, and nothing is stored', async (_, send, status, sentence) => {
  const before = (await server.json<Run>('GET', `/api/runs/${run.id}`)).logs;
  const response = await send();
  expect([response.status, await response.text()]).toEqual([status, expect.stringMatching(sentence)]);
  expect((await server.json<Run>('GET', `/api/runs/${run.id}`)).logs).toEqual(before);
});

test('how a source is read is remembered by its headings, the last way', async () => {
  const source = (name: string): LogSource => ({
    headings: 'rpm|time',
    name,
    probe: { delayS: 0, offset: 0 },
    mapping: {
      ratioAtLambda1: 14.7,
      columns: [
        { heading: 'Time', channel: 'time', unit: 's' },
        { heading: 'RPM', channel: 'engineSpeed', unit: 'rpm' },
      ],
    },
  });
  await server.json('PUT', '/api/log-sources', source('first'));
  await server.json('PUT', '/api/log-sources', source('second'));
  expect(await server.json('GET', '/api/log-sources')).toEqual([source('second')]);
});

test('what was learned of a run’s power is forgotten where its machine is put right, also by an undo', async () => {
  const power = `insert into run_power (run_id, version, from_rpm, step_rpm, power_kw) values (${run.id}, 1, 2000, 25, '{50}')`;
  const kept = async () =>
    (await server.running.database.query('select 1 from run_power where run_id = $1', [run.id])).rowCount;
  await server.asOwner(power);
  await server.json('PATCH', `/api/runs/${run.id}`, { note: 'windy' });
  expect(await kept()).toBe(1);
  const response = await server.request('PATCH', `/api/runs/${run.id}`, { dyno: { ...testDyno, inertiaKgM2: 70 } });
  expect(await kept()).toBe(0);
  await server.asOwner(power);
  await server.request('POST', `/api/acts/${response.headers.get('suvok-act')}/undo`);
  expect(await kept()).toBe(0);
});
