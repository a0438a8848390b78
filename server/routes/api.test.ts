import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import type { CurveJson } from '../../contract/files/curve.ts';
import { importResult } from '../../contract/job/job-requests.ts';
import { job as jobSchema, type Job, type Run, type Setup } from '../../contract/job/records.ts';
import { recordingFromBytes, recordingsFromBytes } from '../../core/exchange/recordings/recording-bytes.ts';
import { writeRecordingCsv } from '../../core/exchange/recordings/write-csv.ts';
import { generatedRun } from '../../core/testing/generated-run.ts';
import { testDyno, usualTorque } from '../../core/testing/test-car.ts';
import { TestServer } from '../testing/test-server.ts';

let server: TestServer;
let job: Job;
beforeAll(async () => {
  server = await TestServer.start();
  job = await server.newJob();
});
afterAll(async () => {
  await server.stop();
  expect(server.errors).toEqual([]);
});

const air = { temperatureC: 24, pressureHpa: 1008, relativeHumidityPct: 45 };

async function importCsv(text: string, over: Record<string, unknown> = {}, name = 'run.csv'): Promise<Response> {
  const form = new FormData();
  form.append('file', new Blob([text]), name);
  form.append(
    'settings',
    JSON.stringify({
      setupId: job.setups[0]!.id,
      dyno: testDyno,
      air,
      engineToDrumRatio: null,
      startedAt: '2026-05-04T09:00:00Z',
      ...over,
    }),
  );
  return fetch(`${server.origin}/api/imports`, { method: 'POST', body: form });
}

async function imported(text: string, over: Record<string, unknown> = {}, name?: string): Promise<Run> {
  return importResult.parse(await (await importCsv(text, over, name)).json()).run;
}

const curveOf = (run: Run, query = '') => server.json<CurveJson>('GET', `/api/runs/${run.id}/curve?${query}`);

describe('jobs and setups', () => {
  test('a new job has its first setup, and is found in the list', async () => {
    expect(jobSchema.parse(job).setups).toMatchObject([{ letter: 'A', change: 'As arrived', parentId: null }]);
    expect(await server.json('GET', '/api/jobs')).toMatchObject({
      jobs: [{ id: job.id, setups: 1, runs: 0, waiting: 'its question' }],
      total: 1,
    });
  });

  test('a change touches only what it names', async () => {
    await server.json('PATCH', `/api/jobs/${job.id}`, { use: 'hill climbs', gear: '4th' });
    const changed = await server.json<Job>('PATCH', `/api/jobs/${job.id}`, { question: 'Does it pay?' });
    expect(changed).toMatchObject({ use: 'hill climbs', gear: '4th', question: 'Does it pay?', vehicle: 'Test car' });
  });

  test('setups get letters in order even when two browsers add at once, and items are read out of the line', async () => {
    const other = await server.newJob('Another car');
    const parentId = other.setups[0]!.id;
    const added = await Promise.all(
      ['ignition +1.5° above 4,000', 'intake trumpets 40 mm shorter', 'cold plugs'].map((change) =>
        server.json<Setup>('POST', `/api/jobs/${other.id}/setups`, { parentId, change }),
      ),
    );
    expect(added.map((setup) => setup.letter).sort()).toEqual(['B', 'C', 'D']);
    expect(added[0]!.items).toEqual([{ kind: 'ignition', by: 1.5, aboveRpm: 4000 }]);
    const reworded = await server.json<Setup>('PATCH', `/api/setups/${added[2]!.id}`, { change: 'ignition −1°' });
    expect(reworded.items).toEqual([{ kind: 'ignition', by: -1 }]);
  });

  test.each([
    ['POST', '/api/jobs', { vehicle: '  ' }, 400, /name the vehicle/],
    ['POST', '/api/jobs', { owner: 'nobody' }, 400, /vehicle/],
    ['GET', '/api/jobs/99999', undefined, 404, /no such job/],
    ['GET', '/api/jobs/abc', undefined, 404, /abc/],
    ['GET', '/api/nothing', undefined, 404, /nothing at this address/],
    ['POST', '/api/jobs/1/setups', { parentId: 99999, change: 'x' }, 409, /does not fit/],
    ['PUT', '/api/bays/1/mounted', { jobId: 1, setupId: 99999 }, 422, /not one of the job/],
    ['PATCH', '/api/runs/99999', { note: 'x' }, 404, /no such run/],
  ])('%s %s with %j: %d and a sentence', async (method, path, body, status, sentence) => {
    const response = await server.request(method, path, body);
    expect(response.status).toBe(status);
    expect(((await response.json()) as { error: string }).error).toMatch(sentence);
  });

  test('a request from another page or under another name is refused', async () => {
    const foreign = await fetch(`${server.origin}/api/jobs`, {
      method: 'POST',
      headers: { origin: 'https://elsewhere.example', 'content-type': 'application/json' },
      body: '{"vehicle":"x"}',
    });
    expect(foreign.status).toBe(403);
    const broken = await fetch(`${server.origin}/api/jobs`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: '{"vehicle"',
    });
    expect(broken.status).toBe(400);
  });
});

describe('runs', () => {
  test('exported and imported again: the same figures, and the same bytes a second time', async () => {
    const first = await imported(writeRecordingCsv(generatedRun({ speedNoise: 0.01 })), {}, 'läuft.csv');
    expect(first).toMatchObject({ label: 'A1', state: 'sealed', source: 'läuft.csv', air });
    const exported = await (await server.request('GET', `/api/runs/${first.id}/run.csv`)).text();
    const second = await imported(exported, { air: null });
    expect(second.air).toEqual(air);
    expect(await curveOf(second)).toEqual(await curveOf(first));
    expect(await (await server.request('GET', `/api/runs/${second.id}/run.csv`)).text()).toBe(exported);
    expect(await server.json('GET', `/api/runs/${first.id}/dyno.json`)).toEqual(testDyno);
  });

  test('ten percent more inertia in dyno.json moves only the inertial share', async () => {
    const text = writeRecordingCsv(generatedRun({}));
    const usual = await curveOf(await imported(text), 'standard=none&smoothing=150');
    const heavier = await curveOf(
      await imported(text, { dyno: { ...testDyno, inertiaKgM2: 55 } }),
      'standard=none&smoothing=150',
    );
    usual.engineSpeedRpm.forEach((rpm, index) => {
      const drum = (rpm * 2 * Math.PI) / 60 / 3.4;
      const loss = ((5 + 0.05 * drum + 0.0005 * drum ** 2) * drum) / 1000;
      expect(heavier.powerKw[index]! / (usual.powerKw[index]! + 0.1 * (usual.powerKw[index]! - loss))).toBeCloseTo(
        1,
        3,
      );
    });
  });

  test('a recording that other instruments made', async () => {
    const folder = 'core/testing/cases/inertia-roller-petrol/';
    const dyno = JSON.parse(readFileSync(`${folder}dyno.json`, 'utf8')) as unknown;
    const run = await imported(readFileSync(`${folder}run.csv`, 'utf8'), { dyno });
    const curve = await curveOf(run);
    expect(curve.peakPower.rpm).toBeGreaterThan(5500);
    expect(curve.checks).toEqual([]);
  });

  test('a read of samples that failed is kept by no browser; one that succeeded is kept for ever', async () => {
    const run = await imported(writeRecordingCsv(generatedRun({})));
    const recording = (key = run.key) => server.request('GET', `/api/runs/${run.id}/recording?key=${key}`);
    await server.asOwner('alter table run_channel rename to run_channel_away');
    const failed = await recording();
    await server.asOwner('alter table run_channel_away rename to run_channel');
    expect(failed.status).toBe(500);
    expect(failed.headers.get('cache-control')).toBe('no-store');
    expect(String(server.errors.pop())).toMatch(/run_channel/);
    const read = await recording();
    expect(read.status).toBe(200);
    expect(read.headers.get('cache-control')).toMatch(/immutable/);
    // By its number alone it is read, and kept by nobody: in restored data the number may be another run's.
    const byNumber = await server.request('GET', `/api/runs/${run.id}/recording`);
    expect([byNumber.status, byNumber.headers.get('cache-control')]).toEqual([200, 'no-store']);
    expect(await byNumber.arrayBuffer()).toEqual(await read.arrayBuffer());
    expect((await recording('00000000-0000-4000-8000-000000000000')).status).toBe(404);
    expect((await server.request('GET', `/api/runs/99999/recording`)).headers.get('cache-control')).toBe('no-store');
  });

  test('several recordings come together as each does alone; one that is not there is named', async () => {
    const some = [
      await imported(writeRecordingCsv(generatedRun({}))),
      await imported(writeRecordingCsv(generatedRun({ seed: 9 }))),
    ];
    const keys = some.map(({ key }) => key);
    const together = await server.request('GET', `/api/recordings?of=${keys.join('.')}`);
    expect(together.headers.get('cache-control')).toMatch(/immutable/);
    const recordings = recordingsFromBytes(await together.arrayBuffer());
    expect([...recordings.keys()]).toEqual(keys);
    for (const { id, key } of some) {
      const alone = await server.request('GET', `/api/runs/${id}/recording`);
      expect(recordings.get(key)).toEqual(recordingFromBytes(await alone.arrayBuffer()));
    }
    const none = '00000000-0000-4000-8000-000000000000';
    const missing = await server.request('GET', `/api/recordings?of=${keys[0]}.${none}`);
    expect(missing.status).toBe(404);
    expect(await missing.text()).toMatch(`Run ${none} is not there`);
    expect((await server.request('GET', '/api/recordings?of=all')).status).toBe(400);
  });

  test('the curve of a run of a job is the one that the job’s figures show, smoothed by its baseline', async () => {
    const ownJob = await server.newJob('Smoothed car');
    const setupId = ownJob.setups[0]!.id;
    const first = await imported(writeRecordingCsv(generatedRun({ speedNoise: 0.01 })), { setupId });
    const notched = (rpm: number) => usualTorque(rpm) * (1 - 0.3 * Math.exp(-(((rpm - 4000) / 60) ** 2)));
    const setup = await server.json<Setup>('POST', `/api/jobs/${ownJob.id}/setups`, {
      parentId: setupId,
      change: 'a notch',
    });
    const other = await imported(writeRecordingCsv(generatedRun({ speedNoise: 0.01, drumTorque: notched })), {
      setupId: setup.id,
    });
    const [a, b] = [await curveOf(first), await curveOf(other)];
    expect(b.smoothing).toEqual(a.smoothing);
    expect(b.smoothing.auto).toBe(true);
  });

  test('is set aside with a reason, brought back, noted, and moved under a new label', async () => {
    const run = await imported(writeRecordingCsv(generatedRun({})));
    await server.json('PATCH', `/api/runs/${run.id}`, { setAsideReason: 'belt slipped', note: 'hot' });
    const back = await server.json<Run>('PATCH', `/api/runs/${run.id}`, { setAsideReason: null });
    expect(back).toMatchObject({ setAsideReason: null, note: 'hot' });
    const setup = await server.json<Setup>('POST', `/api/jobs/${job.id}/setups`, {
      parentId: job.setups[0]!.id,
      change: 'ballast out',
    });
    const moved = await server.json<Run>('PATCH', `/api/runs/${run.id}`, { setupId: setup.id });
    expect(moved.label).toBe(`${setup.letter}1`);
    const next = await imported(writeRecordingCsv(generatedRun({})));
    expect(Number(next.label!.slice(1))).toBeGreaterThan(Number(run.label!.slice(1)));
    expect((await server.request('PATCH', `/api/runs/${run.id}`, { setAsideReason: ' ' })).status).toBe(400);
  });

  test.each([
    ['empty', '', {}, 422, /empty/],
    [
      'without a sweep',
      'time [s],rollerSpeed [rad/s],engineSpeed [rpm]\n' +
        Array.from({ length: 100 }, (_, row) => `${row / 20},60,2000\n`).join(''),
      {},
      422,
      /No sweep/,
    ],
    ['into a setup that is not there', 'x', { setupId: 99999 }, 404, /no such setup/],
    ['with a dyno of no inertia', 'x', { dyno: { ...testDyno, inertiaKgM2: 0 } }, 400, /dyno\.inertiaKgM2/],
  ])('an import %s is refused and nothing half-made stays', async (_, text, over, status, sentence) => {
    const before = await server.runs(job);
    const response = await importCsv(text, over);
    expect(response.status).toBe(status);
    expect(((await response.json()) as { error: string }).error).toMatch(sentence);
    expect(await server.runs(job)).toEqual(before);
  });

  const changes = [`update run_channel set name = 'x'`, 'delete from run_channel', 'delete from run'];
  test('samples cannot be altered or removed, by the owner of the database neither', async () => {
    for (const change of changes) await expect(server.asOwner(change)).rejects.toThrow(/never altered/);
  });

  test('the application may not even try, nor change the history, nor switch a rule off', async () => {
    const { database } = server.running;
    for (const change of [
      ...changes,
      'update history set before = null',
      'delete from history',
      'truncate run_channel cascade',
      'alter table run_channel disable trigger all',
      'drop table run_channel',
      'create table more (id int)',
      `create role another`,
      `copy job to program 'cat'`,
    ])
      await expect(database.query(change)).rejects.toThrow(/permission denied|must be owner|must be superuser/);
  });
});
