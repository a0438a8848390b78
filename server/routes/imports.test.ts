import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { importResult } from '../../contract/job/job-requests.ts';
import type { Job } from '../../contract/job/records.ts';
import { workLine, type WorkLine } from '../../contract/values/answers.ts';
import { writeRecordingCsv } from '../../core/exchange/recordings/write-csv.ts';
import { idleRun } from '../../core/testing/kind-runs.ts';
import { generatedRun } from '../../core/testing/generated-run.ts';
import { steppedDyno, steppedRatio, steppedRun } from '../../core/testing/stepped-run.ts';
import { testDyno } from '../../core/testing/test-car.ts';
import { eventually, TestServer } from '../testing/test-server.ts';

let server: TestServer;
let job: Job;
/** Sixteen channels: some 8 MB. */
const large = (() => {
  const run = generatedRun({ rateHz: 2000, coastS: 10, speedNoise: 0.01 });
  const [speed] = run.channels;
  const more = Array.from({ length: 13 }, (_, at) => ({ name: `more${at}`, unit: 'V', values: speed!.values }));
  return writeRecordingCsv({ ...run, channels: [...run.channels, ...more] });
})();
beforeAll(async () => {
  server = await TestServer.start();
  job = await server.newJob();
});
afterAll(async () => {
  await server.stop();
  expect(server.errors).toEqual([]);
});

function asked(
  text: string,
  over: { setupId?: number; accept?: string; signal?: AbortSignal } = {},
): Promise<Response> {
  const form = new FormData();
  form.append('file', new Blob([text]), 'run.csv');
  form.append(
    'settings',
    JSON.stringify({
      setupId: over.setupId ?? job.setups[0]!.id,
      dyno: testDyno,
      air: null,
      engineToDrumRatio: null,
      startedAt: '2026-05-04T09:00:00Z',
    }),
  );
  const { accept = 'application/x-ndjson', signal } = over;
  return fetch(`${server.origin}/api/imports`, {
    method: 'POST',
    headers: { accept },
    body: form,
    ...(signal && { signal }),
  });
}
const linesOf = (text: string): WorkLine[] =>
  text
    .trim()
    .split('\n')
    .map((line) => workLine.parse(JSON.parse(line)));
const left = () =>
  readdirSync(tmpdir())
    .filter((name) => name.startsWith(`suvok-uploads-${process.pid}-`))
    .flatMap((name) => readdirSync(join(tmpdir(), name)));

test('an import is told as it goes, and its last line is the answer that others get alone', async () => {
  const response = await asked(large);
  expect([response.status, response.headers.get('content-type')]).toEqual([
    200,
    expect.stringContaining('application/x-ndjson'),
  ]);
  const lines = linesOf(await response.text());
  const last = lines.pop()!;
  const { run, remarks } = importResult.parse((last as { answer: unknown }).answer);
  expect(run).toMatchObject({ label: 'A1', state: 'sealed' });
  const reading = lines.flatMap((line) => ('doing' in line && line.doing === 'reading' ? [line.done] : []));
  expect(reading.length).toBeGreaterThan(3);
  expect(reading.at(-1)).toBe(1);
  expect(lines.at(-1)).toEqual({ doing: 'storing', done: 0 });
  const plain = await asked(large, { accept: 'application/json' });
  expect(plain.status).toBe(201);
  expect(importResult.parse(await plain.json()).remarks).toEqual(remarks);
  await eventually('the file being removed', () => left().length === 0);
});

test('a row of holds is no power run; when it was recorded is asked for, and its own channels tell how it started', async () => {
  const job = await server.newJob();
  const send = (over: object, recording = steppedRun({ speedsRpm: [2500, 3000, 3500, 4000], dwellS: 4 })) => {
    const form = new FormData();
    const coolant = { name: 'coolantTemperature', unit: '°C', values: recording.time.map((at) => 82 + at / 50) };
    form.append(
      'file',
      new Blob([writeRecordingCsv({ ...recording, channels: [...recording.channels, coolant] })]),
      'holds.csv',
    );
    form.append(
      'settings',
      JSON.stringify({
        setupId: job.setups[0]!.id,
        dyno: steppedDyno,
        air: null,
        engineToDrumRatio: steppedRatio,
        startedAt: '2026-03-02T10:00:00Z',
        ...over,
      }),
    );
    return fetch(`${server.origin}/api/imports`, {
      method: 'POST',
      headers: { accept: 'application/json' },
      body: form,
    });
  };
  const { run, remarks } = importResult.parse(await (await send({ gear: '4th' })).json());
  expect(run).toMatchObject({
    kind: 'step',
    gear: '4th',
    startedAt: '2026-03-02T10:00:00.000Z',
    startTemperatures: { coolantTemperature: 82 },
  });
  expect(remarks.join()).toMatch(/taken as steady-speed steps and counts in no power figure/);
  const pull = generatedRun({ dyno: steppedDyno, ratio: steppedRatio, speedNoise: 0.01 });
  expect(importResult.parse(await (await send({}, pull)).json()).run.kind).toBe('power');
  // What somebody says comes before what the file looks like.
  expect(importResult.parse(await (await send({ kind: 'conditioning' }, pull)).json()).run.kind).toBe('conditioning');
  const idling = idleRun({ seed: 1 });
  const standing = {
    ...idling,
    channels: [
      { name: 'rollerSpeed', unit: 'rad/s', values: idling.time.map(() => 0) },
      { name: 'absorberTorque', unit: 'N·m', values: idling.time.map(() => 0) },
      ...idling.channels,
    ],
  };
  const idle = importResult.parse(await (await send({}, standing)).json());
  expect([idle.run.kind, idle.remarks.join()]).toEqual(['idle', expect.stringMatching(/taken as an idle/)]);
  const undated = await send({ startedAt: undefined });
  expect([undated.status, await undated.text()]).toEqual([400, expect.stringMatching(/startedAt/)]);
});

test('what is wrong is the last line, with its status', async () => {
  const line = linesOf(await (await asked('a,b\n1,2\n')).text()).at(-1);
  expect(line).toMatchObject({ status: 422, error: expect.stringMatching(/No column holds|time/) });
  const [absent] = linesOf(await (await asked(large, { setupId: 99999 })).text());
  expect(absent).toMatchObject({ status: 404, error: expect.stringMatching(/no such setup/) });
  await eventually('the file being removed', () => left().length === 0);
});

test('whoever goes away while it is read has stored nothing and left nothing on the disk', async () => {
  const before = (await server.runs(job)).length;
  const gone = new AbortController();
  const response = await asked(large, { signal: gone.signal });
  const reader = response.body!.getReader();
  await reader.read();
  expect(left()).toHaveLength(1);
  gone.abort();
  await expect(reader.read()).rejects.toThrow(/abort/);
  await eventually('the file being removed', () => left().length === 0);
  expect(await server.runs(job)).toHaveLength(before);
});
