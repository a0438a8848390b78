import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { WebSocket } from 'ws';
import type { BaysState, BayState } from '../../contract/bays/live.ts';
import { liveMessage, type LiveMessage } from '../../contract/bays/live.ts';
import { usualPlan } from '../../contract/instruments/recording.ts';
import type { Job, Run } from '../../contract/job/records.ts';
import { startRecorder } from '../../recorder/start-recorder.ts';
import { silentLog } from '../../contract/values/service-log.ts';
import { BenchClient } from '../testing/bench-client.ts';
import { eventually, TestServer } from '../testing/test-server.ts';

let server: TestServer;
let clients: BenchClient[];
beforeEach(async () => {
  server = await TestServer.start();
  clients = [];
});
afterEach(async () => {
  for (const client of clients) client.close();
  await server.stop();
  expect(server.errors).toEqual([]);
});

const bays = () => server.json<BaysState>('GET', '/api/bays');
const said = async (method: string, path: string, body?: unknown) => (await server.request(method, path, body)).text();
const instrument = async (hello: Record<string, unknown>): Promise<BenchClient> => {
  const client = await BenchClient.connect(server.running.benchLinkPort);
  clients.push(client);
  client.hello(hello);
  await eventually('its place', async () =>
    JSON.stringify(await bays()).includes(`"device":"${String(hello.device)}"`),
  );
  return client;
};
const roller = (device: string, over: Record<string, unknown> = {}) => instrument({ device, ...over });
const logger = (device: string, over: Record<string, unknown> = {}) =>
  instrument({
    device,
    kind: 'engine-logger',
    dyno: undefined,
    channels: [
      { name: 'engineSpeed', unit: 'rpm' },
      { name: 'lambda', unit: '–' },
    ],
    ...over,
  });
const weather = (device: string) =>
  instrument({
    device,
    kind: 'weather',
    dyno: undefined,
    channels: [
      { name: 'airTemperature', unit: '°C' },
      { name: 'airPressure', unit: 'hPa' },
      { name: 'relativeHumidity', unit: '%' },
    ],
  });
const namesIn = ({ devices }: BayState) => devices.map(({ device }) => device);
const mountIn = async (bay: number, vehicle: string): Promise<Job> => {
  const job = await server.newJob(vehicle);
  await server.json('PUT', `/api/bays/${bay}/mounted`, { jobId: job.id, setupId: job.setups[0]!.id });
  return job;
};
const sealed = (job: Job, count = 1) =>
  eventually(`${count} runs of job ${job.id}`, async () => {
    const runs = (await server.runs(job)).filter(({ state }) => state === 'sealed');
    return runs.length >= count ? runs : undefined;
  });

describe('two dynos at once', () => {
  test('have a bay each: every run goes to the car on its own dyno, with its own machine, ratio, plan and logger', async () => {
    const withRatio = { engineToDrumRatio: 3.4, channels: [{ name: 'rollerSpeed', unit: 'rad/s' }] };
    const one = await roller('one', { engineToDrumRatio: 3.1, channels: withRatio.channels });
    const beside = await logger('beside-one');
    const two = await roller('two', {
      ...withRatio,
      kind: 'hub',
      dyno: { kind: 'hub', inertiaKgM2: 1.4 },
      channels: [
        { name: 'hubSpeed', unit: 'rad/s' },
        { name: 'absorberTorque', unit: 'N·m' },
      ],
    });
    expect((await bays()).bays.map((bay) => [bay.bay, bay.name, namesIn(bay)])).toEqual([
      [1, 'Bay 1', ['one', 'beside-one']],
      [2, 'Bay 2', ['two']],
    ]);
    const first = await mountIn(1, 'First car');
    const second = await mountIn(2, 'Second car');
    await server.json('PUT', '/api/bays/2/plan', { ...usualPlan, kind: 'check' });
    for (let row = 0; row < 900; row++) {
      // The pulls begin when all three are heard: they come on ways of their own.
      if (row === 200)
        await eventually('all rates', async () =>
          (await bays()).bays.flatMap(({ devices }) => devices).every(({ rateHz }) => rateHz !== null),
        );
      const time = row / 100;
      const speed = time < 3 ? 40 : time < 8 ? 40 + 12 * (time - 3) : 100 - 20 * (time - 8);
      one.frame(time, [speed]);
      beside.frame(time, [speed * 30, 0.9]);
      two.frame(time, [speed / 2, 300]);
    }
    const [ofFirst] = await sealed(first);
    const [ofSecond] = await sealed(second);
    expect(ofFirst).toMatchObject({
      source: 'one',
      bay: 1,
      kind: 'power',
      engineToDrumRatio: 3.1,
      dyno: { kind: 'inertia-roller' },
      logs: [{ device: 'beside-one' }],
    });
    expect(ofSecond).toMatchObject({
      source: 'two',
      bay: 2,
      kind: 'check',
      engineToDrumRatio: 3.4,
      dyno: { kind: 'hub' },
      logs: [],
    });
    // A run is stored a moment before its bay tells of it.
    const lastRuns = async () => (await bays()).bays.map(({ recorder }) => recorder.lastRunId);
    await eventually('both bays', async () => (await lastRuns()).join() === [ofFirst!.id, ofSecond!.id].join());
    const [left, right] = (await bays()).bays;
    expect([left!.plan.kind, right!.plan.kind]).toEqual(['power', 'check']);
  });

  test('are calibrated each for the car on it', async () => {
    const one = await roller('one');
    const two = await roller('two');
    const first = await mountIn(1, 'First car');
    await mountIn(2, 'Second car');
    for (let row = 0; row < 300; row++) {
      one.frame(row / 100, [100, 3000]);
      two.frame(row / 100, [100, 4000]);
    }
    await eventually('its speed', async () => /"rateHz":100/.test(JSON.stringify((await bays()).bays[1])));
    await server.json('POST', '/api/device/ratio', { device: 'two' });
    const ratios = (await bays()).bays.map(({ devices }) => devices[0]!.settings.ratio);
    expect(ratios[0]).toBeNull();
    expect(ratios[1]).toMatchObject({ vehicle: 'Second car' });
    expect(ratios[1]!.value).toBeCloseTo((4000 * 2 * Math.PI) / 60 / 100, 6);
    // Taken to the other dyno the car has no ratio there.
    await server.json('PUT', '/api/bays/1/mounted', { jobId: first.id, setupId: first.setups[0]!.id });
    expect((await bays()).bays[0]!.devices[0]!.settings.ratio).toBeNull();
  });

  test('one records while the other is changed, and only its own bay is refused', async () => {
    const one = await roller('one');
    await roller('two');
    const first = await mountIn(1, 'First car');
    one.pull({ coastS: 1 }, 0, 5);
    await eventually('the recording', async () => (await bays()).bays[0]!.recorder.state === 'recording');
    await mountIn(2, 'Second car');
    await server.json('PUT', '/api/bays/2/plan', { ...usualPlan, repeats: 2 });
    expect(await said('PUT', '/api/bays/1/plan', usualPlan)).toMatch(/being recorded/);
    expect(await said('DELETE', '/api/bays/1/mounted')).toMatch(/being recorded/);
    // The car that is being recorded cannot be put on the other dyno.
    expect(await said('PUT', '/api/bays/2/mounted', { jobId: first.id, setupId: first.setups[0]!.id })).toMatch(
      /being recorded/,
    );
    expect(await said('PUT', '/api/device', { device: 'one', bay: 2 })).toMatch(/being recorded/);
    await server.json('POST', '/api/bays/2/end', {});
    expect((await bays()).bays[0]!.recorder.state).toBe('recording');
    await server.json('POST', '/api/bays/1/end', {});
    await sealed(first);
  });
});

describe('instruments', () => {
  test('are moved by hand, come back there, and a bay never has two dynos', async () => {
    await roller('one');
    await roller('two');
    const loose = await logger('loose');
    expect((await bays()).unplaced.map(({ device }) => device)).toEqual(['loose']);
    await server.json('PUT', '/api/device', { device: 'loose', bay: 2 });
    await eventually('its being let go', () => loose.closed);
    await logger('loose');
    await eventually('its new place', async () => namesIn((await bays()).bays[1]!).includes('loose'));
    expect((await bays()).unplaced).toEqual([]);
    expect(await said('PUT', '/api/device', { device: 'one', bay: 2 })).toMatch(/Bay 2 has a dyno already, two/);
    expect(await said('PUT', '/api/device', { device: 'one', bay: null })).toMatch(/always stands in a bay/);
    expect(await said('PUT', '/api/device', { device: 'loose', bay: 7 })).toMatch(/no bay 7/);
  });

  test('a weather station without a bay serves all of them, but for one that has its own', async () => {
    await roller('one');
    await roller('two');
    const shared = await weather('outside');
    shared.frame(0, [18, 980, 50]);
    await eventually('the air', async () => (await bays()).bays.every(({ air }) => air?.temperatureC === 18));
    const own = await weather('inside');
    await server.json('PUT', '/api/device', { device: 'inside', bay: 2 });
    await eventually('its being let go', () => own.closed);
    const again = await weather('inside');
    again.frame(0, [31, 980, 50]);
    await eventually('its air', async () => (await bays()).bays[1]!.air?.temperatureC === 31);
    shared.frame(1, [19, 980, 50]);
    await eventually('the other air', async () => (await bays()).bays[0]!.air?.temperatureC === 19);
    expect((await bays()).bays[1]!.air?.temperatureC).toBe(31);
  });
});

describe('a bay', () => {
  test('is named, added and taken away; one with something in it stays', async () => {
    await server.json('PATCH', '/api/bays/1', { name: 'Rollers' });
    expect(await said('POST', '/api/bays', { name: ' rollers ' })).toMatch(/called Rollers already/);
    expect(await said('POST', '/api/bays', { name: ' ' })).toMatch(/name the bay/);
    const added = await server.json<BaysState>('POST', '/api/bays', { name: 'Hubs' });
    expect(added.bays.map(({ bay, name }) => [bay, name])).toEqual([
      [1, 'Rollers'],
      [2, 'Hubs'],
    ]);
    await roller('hubs', { bay: 'Hubs' });
    const job = await mountIn(2, 'A car');
    expect(await said('DELETE', '/api/bays/2')).toMatch(/A car is on the dyno of Hubs/);
    await server.json('DELETE', '/api/bays/2/mounted');
    expect(await said('DELETE', '/api/bays/2')).toMatch(/Instruments stand in Hubs/);
    await server.json('DELETE', '/api/bays/1');
    expect(await said('DELETE', '/api/bays/2')).toMatch(/the only bay/);
    expect((await server.request('GET', '/api/bays/1')).status).toBe(404);
    expect((await server.request('POST', '/api/bays/1/arm', {})).status).toBe(404);
    expect((await server.runs(job)).length).toBe(0);
  });

  test('loses its car to another one: a car stands on one dyno', async () => {
    const job = await mountIn(1, 'A car');
    await server.json('POST', '/api/bays', { name: 'Bay 2' });
    await server.json('PUT', '/api/bays/2/mounted', { jobId: job.id, setupId: job.setups[0]!.id });
    expect((await bays()).bays.map(({ mounted }) => mounted?.jobId)).toEqual([undefined, job.id]);
    // A job that is closed comes off, wherever it is.
    await server.json('PUT', `/api/jobs/${job.id}/state`, {
      state: 'closed',
      deliveredSetupId: null,
      untested: '',
      deliveredNote: '',
    });
    expect((await bays()).bays.every(({ mounted }) => mounted === null)).toBe(true);
  });

  test('is remembered, with what is on it, by the next life of the recorder and by one that begins anew', async () => {
    await roller('one');
    await roller('two');
    const job = await mountIn(2, 'A car');
    await server.json('PUT', '/api/bays/2/plan', { ...usualPlan, repeats: 7 });
    await server.json('PATCH', '/api/bays/2', { name: 'Hubs' });
    const copied = () =>
      server.running.database
        .query('select id, name, job_id, plan from bay order by id')
        .then(({ rows }) => rows as { name: string; job_id: number; plan: { repeats: number } }[]);
    await eventually('the copy', async () => (await copied())[1]?.name === 'Hubs');
    for (const client of clients) client.close();
    await server.recorder.close();
    const expected = { bay: 2, name: 'Hubs', mounted: { jobId: job.id }, plan: { repeats: 7 } };
    const settings = { databaseUrl: server.databaseUrl, benchLinkPort: 0, floorBytes: 0, log: silentLog };
    const same = await startRecorder({ ...settings, folder: server.folder });
    expect(same.bays.state().bays[1]).toMatchObject(expected);
    const client = await BenchClient.connect(same.benchLinkPort);
    // Whichever comes first: each stands where it stood.
    client.hello({ device: 'two' });
    await eventually('its place', () => namesIn(same.bays.state().bays[1]!).includes('two'));
    client.close();
    await same.close();
    const fresh = await startRecorder({ ...settings, folder: `${server.folder}-new` });
    await eventually('what the database knows', () => fresh.bays.state().bays.length === 2);
    expect(fresh.bays.state().bays[1]).toMatchObject(expected);
    await fresh.close();
  });
});

test('a page has the rows of the bay that it watches and of no other', async () => {
  const one = await roller('one');
  const two = await roller('two');
  const messages: LiveMessage[] = [];
  const speeds: number[] = [];
  const page = new WebSocket(`${server.origin.replace('http', 'ws')}/live`, { origin: server.origin });
  page.on('message', (data: Buffer, binary) => {
    if (!binary) messages.push(liveMessage.parse(JSON.parse(data.toString())));
    else speeds.push(...new Float64Array(Uint8Array.from(data).buffer).filter((_, at) => at % 3 === 1));
  });
  await new Promise((resolve) => page.once('open', resolve));
  for (const nonsense of ['x', '{}', '{"type":"watch","bay":-1}']) page.send(nonsense);
  const watch = async (bay: number) => {
    const before = messages.length;
    page.send(JSON.stringify({ type: 'watch', bay }));
    await eventually('the columns', () =>
      messages.slice(before).some((message) => message.type === 'columns' && message.bay === bay),
    );
  };
  let time = 0;
  const plays = async () => {
    time += 0.01;
    one.frame(time, [11, 1000]);
    two.frame(time, [22, 1000]);
    const before = speeds.length;
    await eventually('a row', () => speeds.length > before);
  };
  await watch(2);
  await plays();
  expect(speeds).toEqual([22]);
  await watch(1);
  await plays();
  expect(speeds).toEqual([22, 11]);
  page.close();
});

test('a run is claimed from whichever bay, and its bay stays with it', async () => {
  await roller('one');
  const two = await roller('two');
  two.pull();
  const [run] = await eventually('the run', async () => {
    const runs = await server.json<Run[]>('GET', '/api/unclaimed-runs');
    return runs.some(({ state }) => state === 'sealed') ? runs : undefined;
  });
  expect(run).toMatchObject({ bay: 2, source: 'two' });
});

test('days played back one after the other stand in one bay, and leave it to the shop’s own dyno', async () => {
  const startedAt = '2026-05-04T08:00:00Z';
  const first = await roller('played', { startedAt, protocol: 2, instance: 'a' });
  first.close();
  await eventually(
    'its going',
    async () => namesIn((await bays()).bays[0]!).includes('played') && !(await bays()).bays[0]!.devices[0]!.connected,
  );
  const second = await roller('played-loaded', { startedAt, protocol: 2, instance: 'b' });
  second.close();
  await eventually('its going', async () => (await bays()).bays[0]!.devices.every(({ connected }) => !connected));
  await roller('own', { bay: 'Bay 1' });
  await roller('own-2', { bay: 'Bay 2' });
  expect((await bays()).bays.map((bay) => [bay.name, namesIn(bay)])).toEqual([
    ['Bay 1', ['own']],
    ['Bay 2', ['own-2']],
  ]);
});
