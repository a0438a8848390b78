import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { setupFuelling } from '../../contract/shop/fuelling.ts';
import type { Job } from '../../contract/job/records.ts';
import { writeRecordingCsv } from '../../core/exchange/recordings/write-csv.ts';
import type { FuellingAxes } from '../../core/setup/fuel-table.ts';
import { partLoadDrive } from '../../core/testing/part-load-drive.ts';
import { steppedDyno, steppedRatio } from '../../core/testing/stepped-run.ts';
import { BenchClient } from '../testing/bench-client.ts';
import { eventually, TestServer } from '../testing/test-server.ts';

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(async () => {
  await server.stop();
  expect(server.errors).toEqual([]);
});

const axes: FuellingAxes = {
  across: { channel: 'engineSpeed', breakpoints: [2000, 2500, 3000] },
  down: { channel: 'manifoldPressure', breakpoints: [40, 55, 70] },
};
const layout = { axes, dealing: { by: 'corners' }, delay: { transportS: 0.15, lagS: 0.1 }, lambdaTarget: 1 };

/** Holds at part load as a dyno with everything in one file records them. */
async function withHolds(job: Job, error: number, without?: string): Promise<Response> {
  const { log } = partLoadDrive({ axes, errors: new Array<number>(9).fill(error), seed: 3 });
  const speed = log.engineSpeedRpm.map((rpm) => (rpm * 2 * Math.PI) / 60 / steppedRatio);
  const units: Record<string, string> = { manifoldPressure: 'kPa', throttle: '%' };
  const channels = [
    { name: 'rollerSpeed', unit: 'rad/s', values: speed },
    { name: 'absorberTorque', unit: 'N·m', values: speed.map(() => 120) },
    { name: 'engineSpeed', unit: 'rpm', values: log.engineSpeedRpm },
    ...Array.from(log.channels, ([name, values]) => ({ name, unit: units[name] ?? '–', values })),
  ].filter(({ name }) => name !== without);
  const form = new FormData();
  form.append('file', new Blob([writeRecordingCsv({ time: log.time, channels })]), 'holds.csv');
  form.append(
    'settings',
    JSON.stringify({
      setupId: job.setups[0]!.id,
      dyno: steppedDyno,
      air: null,
      engineToDrumRatio: steppedRatio,
      startedAt: '2026-03-02T10:00:00Z',
      kind: 'step',
    }),
  );
  return fetch(`${server.origin}/api/imports`, { method: 'POST', headers: { accept: 'application/json' }, body: form });
}

const fuellingOf = async (job: Job) =>
  setupFuelling.parse(await (await server.request('GET', `/api/setups/${job.setups[0]!.id}/fuelling`)).json());

test('a setup’s fuelling is made of its runs at part load, over the table that its vehicle has', async () => {
  const job = await server.newJob();
  expect(await fuellingOf(job)).toMatchObject({ cells: [], used: [], words: 'No run at part load with λ.' });
  const { car } = job;
  const changed = await server.request('PATCH', `/api/vehicles/${car.id}`, {
    fuelling: layout,
    revision: car.revision,
  });
  expect(await changed.json()).toMatchObject({ fuelling: layout });
  expect((await withHolds(job, 0.05)).status).toBe(201);
  const told = await fuellingOf(job);
  expect(told).toMatchObject({
    setup: 'A',
    axes,
    delay: layout.delay,
    delayFrom: 'typed',
    used: [{ label: 'A1' }],
    refused: [],
  });
  expect(told.cells).toHaveLength(9);
  for (const cell of told.cells) {
    expect(cell).toMatchObject({ knowledge: 'known', standing: 'beyond 3 %' });
    expect(Math.abs(cell.error! - 0.05)).toBeLessThan(0.01);
    expect(cell.multiplier).toBeCloseTo(1 + 0.8 * cell.error!, 6);
  }
  // Another field of the vehicle leaves the table as it is.
  await server.request('PATCH', `/api/vehicles/${car.id}`, { note: 'road tyres' });
  expect((await fuellingOf(job)).axes).toEqual(axes);
});

test('a run that tells nothing says why; breakpoints that do not rise are refused', async () => {
  const job = await server.newJob();
  await withHolds(job, 0.02, 'lambda');
  expect(await fuellingOf(job)).toMatchObject({
    cells: [],
    refused: [{ label: 'A1', why: 'No λ was logged with this run.' }],
  });
  const wrong = { ...layout, axes: { ...axes, across: { channel: 'engineSpeed', breakpoints: [2000, 1500] } } };
  const refused = await server.request('PATCH', `/api/vehicles/${job.car.id}`, { fuelling: wrong });
  expect([refused.status, await refused.text()]).toEqual([400, expect.stringMatching(/must rise/)]);
  expect((await server.request('GET', '/api/setups/99999/fuelling')).status).toBe(404);
});

test('a fuel table goes with a setup to the stand-in; on a real dyno Suvok sets no load', async () => {
  const job = await server.newJob();
  await server.mount(job);
  const dyno = await BenchClient.connect(server.running.benchLinkPort);
  dyno.hello({ commands: ['configure', 'hold', 'sweep', 'steps'] });
  await eventually('the dyno', async () => (await server.bay()).devices.some(({ connected }) => connected));
  const refused = await server.request('POST', '/api/bays/1/hold', { engineSpeedRpm: 2500, manifoldKpa: 60, holdS: 4 });
  expect([refused.status, await refused.text()]).toEqual([422, expect.stringMatching(/sets no load on this dyno/)]);
  const items = [
    { kind: 'fuel-table', name: 'revision 1', table: { ...axes, multipliers: new Array<number>(9).fill(1.02) } },
  ];
  const added = await server.request('POST', `/api/jobs/${job.id}/setups`, {
    parentId: job.setups[0]!.id,
    change: 'fuel table revision 1',
    items,
  });
  expect(await added.json()).toMatchObject({ letter: 'B', items });
  const short = await server.request('POST', `/api/jobs/${job.id}/setups`, {
    parentId: job.setups[0]!.id,
    change: 'short',
    items: [{ ...items[0], table: { ...axes, multipliers: [1] } }],
  });
  expect([short.status, await short.text()]).toEqual([400, expect.stringMatching(/every cell|understood/)]);
});
