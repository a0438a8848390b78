import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { forecast, scoredForecast, type ForecastRecord } from '../../contract/shop/forecasts.ts';
import { writeRecordingCsv } from '../../core/exchange/recordings/write-csv.ts';
import { generatedRun } from '../../core/testing/generated-run.ts';
import { testDyno } from '../../core/testing/test-car.ts';
import { eventually, TestServer } from '../testing/test-server.ts';

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start({ lookForWorkMs: 300, queuePace: { lookS: 0.5, tendS: 30 } });
});
afterAll(async () => {
  await server.stop();
  expect(server.errors).toEqual([]);
});

test('a forecast is written until the first run, then locked, and scored by what the setup made', async () => {
  const job = await server.newJob();
  const setupId = job.setups[0]!.id;
  const said = { setupId, who: 'Ann', quantity: 'peak power', fromRpm: null, toRpm: null, low: 50, high: 500 };
  const made = forecast.parse(await server.json<ForecastRecord>('POST', `/api/jobs/${job.id}/forecasts`, said));
  for (const wrong of [{ high: 40 }, { quantity: 'power at' }, { who: '' }])
    expect((await server.request('POST', `/api/jobs/${job.id}/forecasts`, { ...said, ...wrong })).status).toBe(400);
  await server.json('PATCH', `/api/forecasts/${made.id}`, { low: 60 });
  const form = new FormData();
  form.append('file', new Blob([writeRecordingCsv(generatedRun({}))]), 'run.csv');
  form.append(
    'settings',
    JSON.stringify({ setupId, dyno: testDyno, air: null, engineToDrumRatio: null, startedAt: '2026-05-04T09:00:00Z' }),
  );
  expect((await fetch(`${server.origin}/api/imports`, { method: 'POST', body: form })).status).toBe(201);
  const locked = async (answer: Response) => [answer.status, ((await answer.json()) as { error: string }).error];
  const sentence = [422, 'The forecast is locked: the setup has run.'];
  expect(await locked(await server.request('PATCH', `/api/forecasts/${made.id}`, { low: 99 }))).toEqual(sentence);
  expect(await locked(await server.request('DELETE', `/api/forecasts/${made.id}`))).toEqual(sentence);
  expect(await locked(await server.request('POST', `/api/jobs/${job.id}/forecasts`, said))).toEqual(sentence);
  const scored = await eventually('the score', async () => {
    const [first] = scoredForecast.array().parse(await (await server.request('GET', '/api/forecasts')).json());
    return first;
  });
  expect(scored).toMatchObject({ id: made.id, who: 'Ann', low: 60, high: 500 });
  expect(scored.actual).toBeGreaterThan(10);
  // The list of jobs has its line by then, too.
  const { jobs } = await server.json<{ jobs: { id: number; headline: { letter: string } | null }[] }>(
    'GET',
    '/api/jobs',
  );
  expect(jobs.find(({ id }) => id === job.id)?.headline).toMatchObject({ letter: 'A', gain: null });
});
