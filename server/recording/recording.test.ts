import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { execFile } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import type { CurveJson } from '../../contract/files/curve.ts';
import type { Run } from '../../contract/job/records.ts';
import { testDyno, truePowerKw, usualTorque } from '../../core/testing/test-car.ts';
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
const sealed = (what: string, runs: () => Promise<Run[]>, count = 1) =>
  eventually(what, async () => {
    const found = await runs();
    return found.filter((run) => run.state !== 'recording').length >= count ? found : undefined;
  });

describe('a pull', () => {
  test('that nobody armed, with no page open and no job on the dyno, is kept and can be claimed', async () => {
    const client = await connected();
    client.hello();
    client.pull({ speedNoise: 0.01 });
    const [run] = await sealed('the unclaimed run', () => server.json<Run[]>('GET', '/api/unclaimed-runs'));
    expect(run).toMatchObject({ state: 'sealed', label: null, jobId: null, air: null, source: 'test-roller' });
    const job = await server.newJob();
    const claimed = await server.json<Run>('PATCH', `/api/runs/${run!.id}`, { setupId: job.setups[0]!.id });
    expect(claimed).toMatchObject({ label: 'A1', jobId: job.id });
    expect(await server.json('GET', '/api/unclaimed-runs')).toEqual([]);
    client.close();
  });

  test('with a notch of our own choosing comes back as that curve', async () => {
    const job = await server.newJob();
    await server.mount(job);
    const notched = (rpm: number) => usualTorque(rpm) * (1 - 0.1 * Math.exp(-(((rpm - 4700) / 160) ** 2)));
    const weather = await connected();
    weather.say({
      type: 'hello',
      protocol: 1,
      device: 'test-weather',
      kind: 'weather',
      channels: [
        { name: 'airTemperature', unit: '°F' },
        { name: 'airPressure', unit: 'inHg' },
        { name: 'relativeHumidity', unit: '%' },
      ],
    });
    weather.frame(0, [87.8, 29.589, 48]);
    await eventually('the air', async () => (await server.bay()).air ?? undefined);
    const client = await connected();
    client.hello({
      channels: [
        { name: 'rollerSpeed', unit: 'rad/s' },
        { name: 'engineSpeed', unit: 'rpm' },
      ],
    });
    client.pull({ speedNoise: 0.005, drumTorque: notched });
    const [run] = await sealed('the run', () => server.runs(job));
    expect(run).toMatchObject({ label: 'A1', state: 'sealed', remarks: [] });
    expect(run!.air!.temperatureC).toBeCloseTo(31, 6);
    expect(run!.air!.pressureHpa).toBeCloseTo(1002, 0);
    const curve = await server.json<CurveJson>('GET', `/api/runs/${run!.id}/curve?smoothing=150`);
    expect(curve.correction.factor).toBeCloseTo(1.0235, 3);
    const at = curve.engineSpeedRpm.indexOf(4700);
    const truth = truePowerKw(4700, 3.4, notched);
    expect(curve.uncorrectedPowerKw[at]! / truth).toBeGreaterThan(0.99);
    expect(curve.uncorrectedPowerKw[at]! / truth).toBeLessThan(1.015);
    weather.close();
    client.close();
  });

  test('is stored while it is still going on, in order and no more than 200 ms behind', async () => {
    const job = await server.newJob();
    await server.mount(job);
    const client = await connected();
    client.hello();
    client.pull({}, 0, 6);
    const { rows } = await eventually('stored chunks', async () => {
      const result = await server.running.database.query('select sum(samples)::int as samples from run_chunk');
      return result.rows[0].samples ? result : undefined;
    });
    expect(rows[0].samples).toBeGreaterThan(100);
    await new Promise((resolve) => setTimeout(resolve, 200));
    const all = await server.running.database.query('select sum(samples)::int as samples from run_chunk');
    // Begins 2.5 s before the pull at 1.5 s, so everything from 0 to 6 s is there.
    expect(all.rows[0].samples).toBe(1201);
    client.close();
    const [run] = await sealed('the interrupted run', () => server.runs(job));
    expect(run).toMatchObject({ state: 'interrupted', samples: 1201 });
    expect(run!.remarks.join()).toMatch(/lost during this run/);
  });

  test('after an early end is not taken for a second one', async () => {
    const job = await server.newJob();
    await server.mount(job);
    const client = await connected();
    client.hello();
    const part = client.pull({}, 0, 8);
    await eventually('the recording', async () => (await server.bay()).recorder.state === 'recording');
    await server.json('POST', '/api/bays/1/end', {});
    await sealed('the ended run', () => server.runs(job));
    const whole = client.pull({ coastS: 0.1 }, part + 0.005);
    expect(whole).toBeGreaterThan(part);
    // The clock ran on into a new lead-in, so the second pull counts; what was left of the first does not.
    const recorded = await eventually('the second run', async () => {
      const runs = await server.runs(job);
      return runs.length > 1 ? runs : undefined;
    });
    client.close();
    expect(recorded.map(({ label }) => label).sort()).toEqual(['A1', 'A2']);
    await eventually('the end', async () => (await server.bay()).recorder.state === 'idle');
  });
});

describe('a peer', () => {
  test('that does not begin with a hello hears why and is let go at its first line', async () => {
    for (const first of ['GET / HTTP/1.1', '{"rubbish"', '{"type":"frame","sequence":0,"time":0,"values":[1]}']) {
      const client = await connected();
      client.say(first);
      await eventually('the complaint', () => client.received.some((message) => message.type === 'problem'));
      await eventually('being let go', () => client.closed);
    }
  });

  test('whose hello stands in the body of a web page’s request records nothing', async () => {
    // What a page of another site can send here: a browser writes its own lines first.
    const hello = {
      type: 'hello',
      protocol: 1,
      device: 'forged',
      kind: 'inertia-roller',
      channels: [{ name: 'rollerSpeed', unit: 'rad/s' }],
      engineToDrumRatio: 3,
      dyno: testDyno,
    };
    const sent = fetch(`http://127.0.0.1:${server.running.benchLinkPort}/`, {
      method: 'POST',
      body: `${JSON.stringify(hello)}\n`,
    });
    await expect(sent).rejects.toThrow();
    expect((await server.bay()).devices.filter(({ device }) => device === 'forged')).toEqual([]);
  });

  test('that speaks and then sends rubbish hears why and is let go in the end', async () => {
    const client = await connected();
    client.hello({ device: 'babbler' });
    for (let count = 0; count < 30; count++) client.say(`{"rubbish": ${count}`);
    await eventually('being let go', () => client.closed);
    expect(client.received.filter(({ type }) => type === 'problem').length).toBe(20);
  });

  test('with a unit that is not known is refused, and the bay says so', async () => {
    const client = await connected();
    client.hello({ device: 'odd', channels: [{ name: 'rollerSpeed', unit: 'furlong/h' }] });
    const problem = await eventually('the refusal', () =>
      client.received.find((message) => message.type === 'problem'),
    );
    expect(problem.text).toMatch(/furlong\/h/);
    await eventually('being let go', () => client.closed);
  });

  test('whose frames go missing is recorded with a word about it', async () => {
    const job = await server.newJob();
    await server.mount(job);
    const client = await connected();
    client.hello();
    const until = client.pull({}, 0, 5);
    client.say({ type: 'frame', sequence: 100_000, time: until + 0.1, values: [200, 6000] });
    await eventually('the count', async () => (await server.bay()).devices.some((device) => device.missing > 1000));
    client.close();
    const [run] = await sealed('the run', () => server.runs(job));
    expect(run!.remarks.join(' ')).toMatch(/frames are missing/);
  });

  test('whose clock begins anew in a pull leaves two runs, each with a clock that rises', async () => {
    const job = await server.newJob();
    await server.mount(job);
    const client = await connected();
    client.hello();
    client.pull({}, 100, 7);
    client.frame(0.001, [58.8, 2000]);
    client.pull({}, 0.005);
    // Played faster than it could have been driven, so the order of their wall times means nothing.
    const found = await sealed('both runs', () => server.runs(job), 2);
    const runs = found.sort((a, b) => a.label!.localeCompare(b.label!));
    expect(runs.map((run) => [run.label, run.state])).toEqual([
      ['A1', 'interrupted'],
      ['A2', 'sealed'],
    ]);
    expect(runs[0]!.remarks.join(' ')).toMatch(/clock of the instrument began anew/);
    for (const run of runs)
      expect((await server.request('GET', `/api/runs/${run.id}/curve?smoothing=150`)).status).toBe(200);
    client.close();
  });

  test('of a name that is taken is refused while the first one speaks, and welcome after it', async () => {
    const first = await connected();
    first.hello({ device: 'returning' });
    const second = await connected();
    second.hello({ device: 'returning' });
    const problem = await eventually('the refusal', () => second.received.find(({ type }) => type === 'problem'));
    expect(problem.text).toMatch(/"returning" is connected and speaks/);
    await eventually('being let go', () => second.closed);
    first.close();
    const gone = async () =>
      (await server.bay()).devices.some((device) => device.device === 'returning' && !device.connected);
    await eventually('the first being shown as gone', gone);
    const third = await connected();
    third.hello({ device: 'returning' });
    await eventually('the third in its place', async () => !(await gone()));
    third.close();
    await eventually('it being shown as gone', gone);
  });

  test('that sends again is told what is safe, and after a half-open connection what is wanted', async () => {
    const job = await server.newJob();
    await server.mount(job);
    const client = await connected();
    client.hello({ device: 'resending', protocol: 2, instance: 'one' });
    expect(await eventually('the welcome', () => client.received[0])).toEqual({ type: 'welcome', from: 0 });
    client.pull({}, 0, 6);
    await eventually('all of it being safe', () => client.safeTo === 1200);
    expect(client.unsaved).toEqual([]);
    // The old connection stays open, as after a cable was pulled; what is said on it is not heard.
    const old = client.socket;
    await client.comeBack(server.running.benchLinkPort);
    expect(await eventually('the welcome', () => client.received[0])).toEqual({ type: 'welcome', from: 1201 });
    client.rest({}, 0, 6);
    const [run] = await sealed('the run', () => server.runs(job));
    expect(run).toMatchObject({ label: 'A1', state: 'sealed', remarks: [] });
    old.destroy();
    // Let go for good: the bay is free for the dynos of the next tests.
    client.close();
    const last = await connected();
    last.hello({ device: 'resending' });
    last.close();
    await eventually('its going', async () =>
      (await server.bay()).devices.every(({ device, connected }) => device !== 'resending' || !connected),
    );
  });

  test('is told to sweep when a pull is announced, and nothing is announced without a dyno', async () => {
    expect((await server.request('POST', '/api/bays/1/arm', {})).status).toBe(422);
    const client = await connected();
    client.hello({ commands: ['arm', 'sweep', 'stop', 'configure'] });
    client.frame(0, [10, 400]);
    await eventually('the dyno', async () =>
      (await server.bay()).devices.some((device) => device.device === 'test-roller' && device.heard),
    );
    await server.json('POST', '/api/bays/1/arm', { afterS: 3 });
    await eventually('the sweep', () =>
      client.received.find((message) => message.type === 'sweep' && message.afterS === 3),
    );
    expect((await server.bay()).recorder.state).toBe('armed');
    await server.json('POST', '/api/bays/1/end', {});
    expect((await server.bay()).recorder.state).toBe('idle');
    expect(
      await eventually('the configuration', () => client.received.find((message) => message.type === 'configure')),
    ).toMatchObject({ setup: 'A', items: [] });
    client.close();
  });
});

test('the client printed in docs/bench-link.md plays its curve with its notch', async () => {
  const job = await server.newJob();
  await server.mount(job);
  const page = readFileSync('docs/bench-link.md', 'utf8');
  const client = /```js\n(.*?)```/s.exec(page)![1]!.replace('connect(5181', `connect(${server.running.benchLinkPort}`);
  const file = join(mkdtempSync(join(tmpdir(), 'suvok-client-')), 'client.cjs');
  writeFileSync(file, client);
  await promisify(execFile)(process.execPath, [file]);
  const [run] = await sealed('the run', () => server.runs(job));
  expect(run!.remarks).toEqual([]);
  expect(run).toMatchObject({ label: 'A1', state: 'sealed', source: 'example' });
  await eventually('its place in the bay', async () => (await server.bay()).recorder.lastRunId === run!.id);
  const { engineSpeedRpm, uncorrectedPowerKw } = await server.json<CurveJson>(
    'GET',
    `/api/runs/${run!.id}/curve?smoothing=150`,
  );
  for (const rpm of [2500, 4500, 4750, 6000]) {
    const truth = ((400 - 40 * Math.exp(-(((rpm - 4500) / 200) ** 2))) * rpm * 2 * Math.PI) / 60 / 3.4 / 1000;
    expect(uncorrectedPowerKw[engineSpeedRpm.indexOf(rpm)]! / truth).toBeCloseTo(1, 3);
  }
});
