import { correctionOf } from '../../core/air/correction.ts';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { Job, Run } from '../../contract/job/records.ts';
import { writeRecordingCsv } from '../../core/exchange/recordings/write-csv.ts';
import { generatedRun } from '../../core/testing/generated-run.ts';
import { testDyno } from '../../core/testing/test-car.ts';
import { TestServer } from '../testing/test-server.ts';

let server: TestServer;
const csv = writeRecordingCsv(generatedRun({ speedNoise: 0.01 }));
beforeAll(async () => (server = await TestServer.start()) && undefined);
afterAll(async () => {
  await server.stop();
  expect(server.errors).toEqual([]);
});

async function imported(job: Job): Promise<Run> {
  const form = new FormData();
  form.append('file', new Blob([csv]), 'run.csv');
  form.append(
    'settings',
    JSON.stringify({
      setupId: job.setups[0]!.id,
      dyno: testDyno,
      air: { temperatureC: 20, pressureHpa: 1000, relativeHumidityPct: 40 },
      engineToDrumRatio: null,
      startedAt: '2026-05-04T09:00:00Z',
    }),
  );
  const response = await fetch(`${server.origin}/api/imports`, {
    method: 'POST',
    body: form,
    headers: { accept: 'application/json' },
  });
  return ((await response.json()) as { run: Run }).run;
}
const change = (run: Run, fields: object) => server.request('PATCH', `/api/runs/${run.id}`, fields);
const curve = (run: Run) => server.json<{ powerKw: number[] }>('GET', `/api/runs/${run.id}/curve?grid=100`);

test('one call puts everything right; what was recorded stays beside it, figures follow, and one undo takes it back', async () => {
  const job = await server.newJob();
  const run = await imported(job);
  const before = await curve(run);
  const response = await change(run, {
    startedAt: '2026-03-02T09:15:00Z',
    gear: '3rd',
    air: {
      temperatureC: 31,
      pressure: { at: 'sea level', hPa: 1013, elevationM: 500 },
      moisture: { by: 'dew point', celsius: 15 },
    },
    startTemperatures: { oilTemperature: 82 },
    fuel: { name: 'E85', ethanolPct: 85 },
    tyres: 'slicks 200/60',
    tyrePressureKpa: 230,
    fan: 'full',
    bonnet: 'open',
    loadMode: 'inertia',
    remounted: true,
    dyno: { ...testDyno, inertiaKgM2: testDyno.inertiaKgM2 * 1.05 },
  });
  expect(response.status).toBe(200);
  const put = (await response.json()) as Run;
  expect(put).toMatchObject({
    startedAt: '2026-03-02T09:15:00.000Z',
    gear: '3rd',
    fuel: { name: 'E85', ethanolPct: 85, from: 'stated', moving: false },
    tyres: 'slicks 200/60',
    tyrePressureKpa: 230,
    fan: 'full',
    bonnet: 'open',
    loadMode: 'inertia',
    remounted: true,
  });
  expect(put.air!.pressureHpa).toBeCloseTo(954.6, 0);
  expect(put.airStated).toMatchObject({ moisture: { by: 'dew point', celsius: 15 } });
  expect(put.given).toMatchObject({
    startedAt: run.startedAt,
    gear: null,
    air: run.air,
    fuel: null,
    dyno: run.dyno,
    startTemperatures: run.startTemperatures,
  });
  // Another machine, thinner and hotter air: everything derived follows at once.
  const after = await curve(run);
  expect(after.powerKw[10]! / before.powerKw[10]!).toBeGreaterThan(1.08);
  // What was recorded first stays what was recorded, however often it is put right.
  const again = (await (await change(run, { gear: '4th' })).json()) as Run;
  expect(again.given).toMatchObject({ gear: null, startedAt: run.startedAt });
  // The list of jobs goes by the day that it was made.
  expect((await server.json<{ jobs: Job[] }>('GET', '/api/jobs')).jobs.find(({ id }) => id === job.id)!.lastRunAt).toBe(
    '2026-03-02T09:15:00.000Z',
  );
});

test('an act is undone as a whole, and stands in the timeline', async () => {
  const job = await server.newJob();
  const run = await imported(job);
  const response = await change(run, { fan: 'off', startedAt: '2026-01-05T08:00:00Z' });
  const act = Number(response.headers.get('suvok-act'));
  const changes = await server.json<{ act: number; subject: string; after: object }[]>(
    'GET',
    `/api/jobs/${job.id}/history`,
  );
  expect(changes.find((one) => one.act === act)).toMatchObject({ subject: 'run', after: { fan: 'off' } });
  expect((await server.request('POST', `/api/acts/${act}/undo`)).status).toBeLessThan(300);
  expect(await server.json('GET', `/api/runs/${run.id}`)).toMatchObject({
    fan: null,
    startedAt: run.startedAt,
    given: {},
  });
  // It was changed again since, by the undoing itself.
  expect((await server.request('POST', `/api/acts/${act}/undo`)).status).toBe(409);
});

test('the same is said of several runs in one act', async () => {
  const job = await server.newJob();
  const runs = [await imported(job), await imported(job)];
  const response = await server.request('PATCH', '/api/runs', {
    runIds: runs.map(({ id }) => id),
    change: { tyres: 'road', note: 'wet floor' },
  });
  expect(await response.json()).toMatchObject([{ tyres: 'road', note: 'wet floor' }, { tyres: 'road' }]);
  // One that is not there: nothing is changed.
  const refused = await server.request('PATCH', '/api/runs', {
    runIds: [runs[0]!.id, 999_999],
    change: { tyres: 'slicks' },
  });
  expect(refused.status).toBe(404);
  expect(await server.json('GET', `/api/runs/${runs[0]!.id}`)).toMatchObject({ tyres: 'road' });
});

test.each([
  [{ pressure: 990 }, /"pressure" cannot be set; what can be set here is .*startedAt.*air/],
  [{ samples: 3 }, /"samples" cannot be set/],
  [{ air: { temperatureC: 20, pressureHpa: 990, relativeHumidityPct: 40 } }, /air/],
  [
    { air: { temperatureC: 20, pressure: { at: 'station', hPa: 990 }, moisture: { by: 'dew point', celsius: 26 } } },
    /dew point lies above/,
  ],
  [{ startedAt: 'yesterday' }, /startedAt/],
  [{ tyrePressureKpa: 2.3 }, /tyrePressureKpa/],
  [{ loadMode: 'sideways' }, /loadMode/],
])('%j is refused with a sentence, and nothing is changed', async (fields, sentence) => {
  const run = await imported(await server.newJob());
  const response = await change(run, { ...fields, note: 'should not stay' });
  expect(response.status).toBeGreaterThanOrEqual(400);
  expect(((await response.json()) as { error: string }).error).toMatch(sentence);
  expect(await server.json('GET', `/api/runs/${run.id}`)).toMatchObject({
    note: '',
    air: run.air,
    startedAt: run.startedAt,
  });
});

test('a run begins with what the car and the job have', async () => {
  const job = await server.newJob('Ostrel 990');
  await server.json('PATCH', `/api/vehicles/${job.vehicleId}`, { tyres: '180/55 R17' });
  await server.json('PATCH', `/api/jobs/${job.id}`, { tyrePressureKpa: 250, fan: 'two, full', bonnet: 'open' });
  const run = await imported(job);
  expect(run).toMatchObject({ tyres: '180/55 R17', tyrePressureKpa: 250, fan: 'two, full', bonnet: 'open', given: {} });
  // What changes later is of the runs that follow.
  await server.json('PATCH', `/api/jobs/${job.id}`, { fan: 'off' });
  expect(await server.json('GET', `/api/runs/${run.id}`)).toMatchObject({ fan: 'two, full' });
});

test('the curve of a run is corrected for its own engine: a diesel that breathes by itself is no turbo', async () => {
  const job = await server.newJob('Diesel of its own');
  const run = await imported(job);
  const factor = async () =>
    (
      await server.json<{ correction: { factor: number } }>(
        'GET',
        `/api/runs/${run.id}/curve?grid=100&standard=iso-1585-ci`,
      )
    ).correction.factor;
  const engine = (induction: string) =>
    server.json('PATCH', `/api/vehicles/${job.vehicleId}`, { ignition: 'compression', induction });
  await engine('turbo');
  const turbo = await factor();
  await engine('none');
  const air = { temperatureC: 20, pressureHpa: 1000, relativeHumidityPct: 40 };
  expect(await factor()).toBeCloseTo(correctionOf('iso-1585-ci', air, 1, { turbocharged: false }).factor, 3);
  expect(turbo).toBeCloseTo(correctionOf('iso-1585-ci', air, 1, { turbocharged: true }).factor, 3);
  expect(turbo).not.toBeCloseTo(await factor(), 3);
});
