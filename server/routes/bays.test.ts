import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { silentLog } from '../../contract/values/service-log.ts';
import { SpreadLearner } from '../spread-learner.ts';
import type { CheckHistoryRecord } from '../../contract/job/check-history.ts';
import { usualPlan } from '../../contract/instruments/recording.ts';
import type { Job, Run } from '../../contract/job/records.ts';
import { generatedRun } from '../../core/testing/generated-run.ts';
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

const connected = () => BenchClient.connect(server.running.benchLinkPort);
const loggerHello = {
  device: 'test-logger',
  kind: 'engine-logger',
  channels: [
    { name: 'engineSpeed', unit: 'rpm' },
    { name: 'lambda', unit: '–' },
    { name: 'coolantTemperature', unit: '°F' },
  ],
  dyno: undefined,
};

/** Says what a logger says of the generated pull, on a clock that is ahead. */
function logged(client: BenchClient, aheadS: number): void {
  const run = generatedRun({});
  const rpm = run.channels.find(({ name }) => name === 'engineSpeed')!.values;
  run.time.forEach((time, row) => {
    if (row % 4 === 0) client.frame(time + aheadS, [rpm[row]!, 0.88, 194]);
  });
}

describe('a logger beside the dyno', () => {
  test('is recorded with the run, on its own clock, its units put right, its temperatures at the start', async () => {
    const job = await server.newJob();
    await server.mount(job);
    const [dyno, logger] = [await connected(), await connected()];
    logger.hello(loggerHello);
    dyno.hello();
    await eventually(
      'both',
      async () => (await server.bay()).devices.filter((device) => device.connected).length === 2,
    );
    logged(logger, 30);
    await new Promise((resolve) => setTimeout(resolve, 200));
    dyno.pull();
    const run = await eventually('the run', async () =>
      (await server.runs(job)).find(({ state }) => state === 'sealed'),
    );
    expect(run.logs).toMatchObject([
      {
        source: 1,
        device: 'test-logger',
        channels: [{ name: 'engineSpeed' }, { name: 'lambda' }, { name: 'coolantTemperature', unit: '°C' }],
      },
    ]);
    expect(run.startTemperatures.coolantTemperature).toBeCloseTo(90, 0);
    const csv = await (await server.request('GET', `/api/runs/${run.id}/run.csv?source=1`)).text();
    const rows = csv.trim().split('\n');
    expect(rows[0]).toContain('lambda [–]');
    expect(Number(rows[1]!.split(',')[0])).toBeGreaterThan(29);
    expect((await server.request('GET', `/api/runs/${run.id}/recording?source=2`)).status).toBe(404);
    dyno.close();
    logger.close();
    await eventually('both gone', async () => (await server.bay()).devices.every((device) => !device.connected));
  });
});

describe('what comes next', () => {
  test('is kept over a restart of nothing, and goes with the run', async () => {
    const job = await server.newJob();
    await server.mount(job);
    await server.json('PUT', '/api/bays/1/plan', { ...usualPlan, kind: 'check', toRpm: 6000, repeats: 2 });
    expect((await server.bay()).plan).toMatchObject({ kind: 'check', toRpm: 6000, repeats: 2 });
    const dyno = await connected();
    dyno.hello({ device: 'checked-roller' });
    await eventually('the dyno', async () =>
      (await server.bay()).devices.some(({ device, heard }) => device === 'checked-roller' && heard),
    );
    const last = dyno.pull();
    await eventually('the run', async () => (await server.runs(job)).some(({ state }) => state === 'sealed'));
    dyno.pull({}, last + 20);
    const runs = await eventually('both runs', async () => {
      const found = await server.runs(job);
      return found.filter(({ state }) => state === 'sealed').length === 2 ? found : undefined;
    });
    expect(runs[0]).toMatchObject({ kind: 'check', device: 'checked-roller', plan: { toRpm: 6000, steps: null } });
    const history = await server.json<CheckHistoryRecord>('GET', '/api/check-history?device=checked-roller');
    expect(history.series[0]!.runs).toHaveLength(2);
    expect(history.within!.df).toBe(1);
    // A check run that is set aside no longer tells of the dyno.
    await server.json<Run>('PATCH', `/api/runs/${runs[0]!.id}`, { setAsideReason: 'slipped' });
    const less = await server.json<CheckHistoryRecord>('GET', '/api/check-history?device=checked-roller');
    expect(less.series[0]!.runs).toHaveLength(1);
    await server.json('PUT', '/api/bays/1/plan', usualPlan);
    dyno.close();
  });

  test.each([
    [{ ...usualPlan, fromRpm: 6000, toRpm: 3000 }, /end speed/],
    [{ ...usualPlan, kind: 'drag' }, /kind/],
    [{ ...usualPlan, steps: { ...usualPlan.steps, speedsRpm: [] } }, /steps/],
  ])('%# refuses what cannot be made', async (plan, sentence) => {
    const response = await server.request('PUT', '/api/bays/1/plan', plan);
    expect(response.status).toBe(400);
    expect(await response.text()).toMatch(sentence);
  });
});

describe('the spread of repeats', () => {
  test('is learned from counted runs of repeated setups, one at a time, and never from the job itself', async () => {
    const job = await server.newJob();
    await server.mount(job);
    const dyno = await connected();
    dyno.hello({ device: 'learning-roller' });
    let from = 0;
    const slips = { tyreSlip: { fromRpm: 3800, toRpm: 4900, share: 0.08 } };
    for (const count of [1, 2, 3]) {
      // The last one is no reading of the engine, though nobody has set it aside yet.
      from = dyno.pull({ seed: count, speedNoise: 0.01, ...(count === 3 ? { faults: slips } : {}) }, from) + 20;
      await eventually('the run', async () =>
        (await server.runs(job)).filter(({ state }) => state === 'sealed').length === count ? true : undefined,
      );
    }
    const asked = (query: string) =>
      server.json<CheckHistoryRecord>('GET', `/api/check-history?device=learning-roller${query}`);
    expect((await asked('')).repeats).toEqual([]);
    const learner = new SpreadLearner(server.running.database, () => false, silentLog);
    let learned = 0;
    while (await learner.learnOne()) learned++;
    expect(learned).toBeGreaterThanOrEqual(3);
    const [repeats, ...more] = (await asked('')).repeats;
    expect(more).toEqual([]);
    expect(repeats).toMatchObject({ runs: 2, of: expect.stringMatching(/^A of \d+ \w+ \d{4}$/), car: job.vehicle });
    expect(repeats!.share).toBeLessThan(0.02);
    expect(repeats!.slope).toMatchObject({ placeScatter: 0.5 });
    expect((await asked(`&job=${job.id}`)).repeats).toEqual([]);
    // Another visit of the same car knows its own; another car's job does not.
    const visit = await server.json<Job>('POST', '/api/jobs', { vehicleId: job.vehicleId });
    expect((await asked(`&job=${visit.id}`)).repeats).toMatchObject([{ runs: 2, sameVehicle: true }]);
    const other = await server.newJob('Another car');
    expect((await asked(`&job=${other.id}`)).repeats[0]).not.toHaveProperty('sameVehicle');
    // Nothing is made twice, and one that is set aside tells nothing more.
    expect(await learner.learnOne()).toBe(false);
    const [run] = await server.runs(job);
    await server.json('PATCH', `/api/runs/${run!.id}`, { setAsideReason: 'slipped' });
    expect((await asked('')).repeats).toEqual([]);
    expect(await (await server.request('GET', '/api/check-history?device=x&job=y')).text()).toMatch(
      /Name the instrument/,
    );
    dyno.close();
  });
});

describe('what the shop sets', () => {
  test('two channels of one name, an unknown instrument and a missing question are refused in a sentence', async () => {
    const dyno = await connected();
    dyno.hello({ device: 'named-roller' });
    await eventually('the dyno', async () =>
      (await server.bay()).devices.some(({ device }) => device === 'named-roller'),
    );
    const said = async (method: string, path: string, body?: unknown) =>
      (await server.request(method, path, body)).text();
    expect(
      await said('PUT', '/api/device', { device: 'named-roller', channelNames: { engineSpeed: 'rollerSpeed' } }),
    ).toMatch(/declared twice/);
    expect(await said('PUT', '/api/device', { device: 'nobody', probe: { delayS: 0.1, offset: 0 } })).toMatch(
      /not connected/,
    );
    expect(await said('POST', '/api/device/rest', { device: 'named-roller' })).toMatch(/only the stand-ins/);
    expect(await said('POST', '/api/device/zero', { device: 'named-roller' })).toMatch(/Too little was heard/);
    expect(await said('GET', '/api/check-history')).toMatch(/Name the instrument/);
    dyno.close();
  });

  test('a channel called otherwise comes under its new name once the instrument is back', async () => {
    const dyno = await connected();
    dyno.hello({
      device: 'odd-roller',
      engineToDrumRatio: 3.4,
      channels: [
        { name: 'drum', unit: 'rad/s' },
        { name: 'rollerSpeed', unit: 'rad/s' },
      ],
    });
    await eventually('the dyno', async () =>
      (await server.bay()).devices.some(({ device }) => device === 'odd-roller'),
    );
    await server.json('PUT', '/api/device', {
      device: 'odd-roller',
      channelNames: { drum: '', rollerSpeed: 'rollerSpeed' },
    });
    await eventually('its being let go', () => dyno.closed);
    const again = await connected();
    again.hello({
      device: 'odd-roller',
      engineToDrumRatio: 3.4,
      channels: [
        { name: 'drum', unit: 'rad/s' },
        { name: 'rollerSpeed', unit: 'rad/s' },
      ],
    });
    const device = await eventually('its coming back', async () =>
      (await server.bay()).devices.find(
        (device) => device.device === 'odd-roller' && device.connected && device.channels.length === 1,
      ),
    );
    expect(device.channels).toEqual([{ name: 'rollerSpeed', unit: 'rad/s' }]);
    again.close();
  });
});
