import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { setupTests } from '../../contract/job/other-tests.ts';
import type { Job, Run } from '../../contract/job/records.ts';
import { onTheRoad } from '../../core/dyno/dyno-profile.ts';
import { writeRecordingCsv } from '../../core/exchange/recordings/write-csv.ts';
import type { Recording } from '../../core/recording/recording.ts';
import { roadDrive } from '../../core/testing/kind-runs.ts';
import { TestServer } from '../testing/test-server.ts';

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(async () => {
  await server.stop();
  expect(server.errors).toEqual([]);
});

/** A file from the road, as its own content tells. */
async function driven(setupId: number, recording: Recording, kind?: string): Promise<Response> {
  const form = new FormData();
  form.append('file', new Blob([writeRecordingCsv(recording)]), 'road.csv');
  form.append(
    'settings',
    JSON.stringify({
      setupId,
      dyno: onTheRoad,
      air: null,
      engineToDrumRatio: null,
      startedAt: '2026-03-02T10:00:00Z',
      ...(kind && { kind }),
    }),
  );
  return fetch(`${server.origin}/api/imports`, { method: 'POST', headers: { accept: 'application/json' }, body: form });
}

async function twoSetups(): Promise<Job & { b: number }> {
  const job = await server.newJob();
  const made = await server.request('POST', `/api/jobs/${job.id}/setups`, {
    parentId: job.setups[0]!.id,
    change: 'Shorter final drive',
  });
  expect(made.status).toBe(201);
  return { ...job, b: ((await made.json()) as { id: number }).id };
}

const testsOf = async (id: number, query = '') => server.request('GET', `/api/setups/${id}/tests${query}`);

test('drives on the road are told apart by themselves and judged before and after', async () => {
  const job = await twoSetups();
  const a = job.setups[0]!.id;
  expect(setupTests.parse(await (await testsOf(job.b)).json())).toMatchObject({ setup: 'B', against: 'A', kinds: [] });
  for (const seed of [1, 2, 3]) {
    const answer = await driven(a, roadDrive({ seed }));
    expect(answer.status).toBe(201);
    const { run, remarks } = (await answer.json()) as { run: Run; remarks: string[] };
    expect(run).toMatchObject({ kind: 'road-check', dyno: { kind: 'road' } });
    expect(remarks.join()).toContain('taken as a road check');
    await driven(job.b, roadDrive({ seed: 10 + seed, acceleration: 2.4, coolantC: 116, passages: 8 }));
  }
  const told = setupTests.parse(await (await testsOf(job.b)).json());
  const [road] = told.kinds;
  expect(road).toMatchObject({ kind: 'road-check', judged: { before: ['A1', 'A2', 'A3'], after: ['B1', 'B2', 'B3'] } });
  const time = road!.judged!.figures.find(({ id }) => id === 'time-80-120')!;
  expect(time).toMatchObject({ claim: 'less', good: true, unit: 's' });
  expect(Math.abs(time.difference! - (40 / 3.6 / 2.4 - 40 / 3.6 / 2))).toBeLessThan(time.halfWidth! + 0.05);
  expect(road!.runs.find(({ label }) => label === 'B1')!.found).toMatchObject([{ id: 'road-coolantTemperature' }]);
  // Against itself there is nothing to judge; a letter that no setup has is refused.
  const alone = setupTests.parse(await (await testsOf(a)).json());
  expect(alone.kinds).toMatchObject([{ judged: null }]);
  const refused = await testsOf(a, '?against=Q');
  expect([refused.status, ((await refused.json()) as { error: string }).error]).toEqual([
    404,
    expect.stringContaining('no setup "Q"'),
  ]);
});

test('a drive on the road is no power run, whatever it is said to be', async () => {
  const job = await twoSetups();
  const answer = await driven(job.b, roadDrive({ seed: 4 }), 'power');
  expect([answer.status, ((await answer.json()) as { error: string }).error]).toEqual([
    422,
    expect.stringContaining('no drum turned under it'),
  ]);
});
