import { afterAll, beforeAll, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { testDyno } from '../../core/testing/test-car.ts';
import { BenchClient } from '../testing/bench-client.ts';
import { eventually, TestServer } from '../testing/test-server.ts';
import { shortOrWhole } from '../../core/testing/short-or-whole.ts';

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(() => server.stop());

const connected = () => BenchClient.connect(server.running.benchLinkPort);
const problemsOf = (client: BenchClient) =>
  client.received.filter(({ type }) => type === 'problem').map(({ text }) => text);
const channel = (name: string, unit: string) => ({ name, unit });
const roller = [channel('rollerSpeed', 'rad/s'), channel('engineSpeed', 'rpm')];
const air = [channel('airTemperature', '°C'), channel('airPressure', 'hPa'), channel('relativeHumidity', '%')];

test.each([
  ['a dyno without a speed', { channels: [channel('engineSpeed', 'rpm')] }, /needs a rollerSpeed/],
  [
    'a loaded roller without torque',
    { kind: 'loaded-roller', dyno: { ...testDyno, kind: 'loaded-roller' } },
    /needs absorberTorque/,
  ],
  [
    'a dyno without engine speed or ratio',
    { channels: roller.slice(0, 1) },
    /needs an engineSpeed channel, or its engineToDrumRatio/,
  ],
  ['a dyno that reads too seldom', { rateHz: 12 }, /20 readings a second at least; it says that it gives 12/],
  [
    'a logger without engine speed',
    { kind: 'engine-logger', channels: [channel('lambda', '–')], dyno: undefined },
    /a logger needs engineSpeed/,
  ],
  [
    'a station without humidity',
    { kind: 'weather', channels: air.slice(0, 2), dyno: undefined },
    /needs airTemperature, airPressure and relativeHumidity/,
  ],
  [
    'a unit named like a part of the language',
    { channels: [channel('rollerSpeed', 'constructor'), roller[1]!] },
    /unit "constructor"/,
  ],
  ['a channel twice', { channels: [...roller, roller[1]!] }, /declared twice/],
  ['half a character', { device: 'x\ud800' }, /characters that cannot be stored/],
] as const)('%s is refused in a sentence', async (name, over, sentence) => {
  const client = await connected();
  client.hello({ device: name, ...over });
  await eventually('the refusal', () => problemsOf(client).some((text) => sentence.test(String(text))));
  expect((await server.bay()).devices.some(({ device }) => device === name)).toBe(false);
  client.socket.destroy();
});

test('what each kind is nothing without is enough', async () => {
  const client = await connected();
  client.hello({ device: 'ratio-roller', channels: roller.slice(0, 1), engineToDrumRatio: 3.4, rateHz: 20 });
  const station = await connected();
  station.hello({ device: 'station', kind: 'weather', channels: air, dyno: undefined });
  await eventually('both', async () => {
    const names = (await server.bay()).devices.map(({ device }) => device);
    return names.includes('ratio-roller') && names.includes('station');
  });
  client.socket.destroy();
  station.socket.destroy();
});

test('channels named like parts of the language are channels like any other', async () => {
  const odd = ['constructor', '__proto__', 'valueOf', 'toString'].map((name) => channel(name, '°C'));
  const client = await connected();
  client.hello({ device: 'odd-roller', channels: [...roller, ...odd] });
  await eventually('the device', async () =>
    (await server.bay()).devices.some(({ device }) => device === 'odd-roller'),
  );
  client.frame(0, [60, 2000, 1, 2, 3, 4]);
  const state = await eventually('its channels', async () =>
    (await server.bay()).devices.find(({ device }) => device === 'odd-roller'),
  );
  expect(state.channels.map(({ name }) => name)).toEqual([
    'rollerSpeed',
    'engineSpeed',
    'constructor',
    '__proto__',
    'valueOf',
    'toString',
  ]);
  client.socket.destroy();
});

test('whatever line comes, the server answers on', async () => {
  const odd = fc.oneof(
    fc.constantFrom<unknown>(
      null,
      true,
      -1,
      1e300,
      '',
      '\u0000',
      '\ud800',
      'constructor',
      '__proto__',
      [],
      {},
      [[]],
      'x'.repeat(3000),
    ),
    fc.jsonValue(),
  );
  const hello = fc.record(
    {
      type: fc.oneof({ weight: 9, arbitrary: fc.constant<unknown>('hello') }, { weight: 1, arbitrary: odd }),
      protocol: fc.oneof({ weight: 9, arbitrary: fc.constant<unknown>(1) }, { weight: 1, arbitrary: odd }),
      device: fc.oneof(fc.constantFrom<unknown>('a', 'constructor', '__proto__'), odd),
      kind: fc.oneof(
        fc.constantFrom<unknown>('inertia-roller', 'loaded-roller', 'hub', 'weather', 'engine-logger'),
        odd,
      ),
      channels: fc.oneof(
        fc.array(
          fc.record({
            name: fc.oneof(
              fc.constantFrom<unknown>('rollerSpeed', 'engineSpeed', 'absorberTorque', 'airTemperature', 'time'),
              odd,
            ),
            unit: fc.oneof(fc.constantFrom<unknown>('rad/s', 'rpm', '°C', ''), odd),
          }),
          { maxLength: 6 },
        ),
        odd,
      ),
      dyno: fc.oneof(fc.constant<unknown>(testDyno), odd),
      rateHz: odd,
      engineToDrumRatio: odd,
      startedAt: odd,
      faults: odd,
      commands: odd,
    },
    { requiredKeys: ['type', 'protocol', 'kind', 'device', 'channels'] },
  );
  const frame = fc.record({
    type: fc.constant('frame'),
    sequence: fc.oneof(fc.nat(), odd),
    time: fc.oneof(fc.double(), odd),
    values: fc.oneof(fc.array(fc.double(), { maxLength: 6 }), odd),
  });
  const line = fc.oneof(
    hello.map((message) => JSON.stringify(message)),
    frame.map((message) => JSON.stringify(message)),
    odd.map((message) => JSON.stringify(message)),
    fc.string({ unit: 'binary' }),
  );
  await fc.assert(
    fc.asyncProperty(fc.array(line, { minLength: 1, maxLength: 6 }), async (lines) => {
      const client = await connected();
      for (const text of lines) client.say(text.replaceAll('\n', ' '));
      client.socket.end();
      expect((await server.request('GET', '/api/health')).status).toBe(200);
      expect(server.errors.splice(0).map(String)).toEqual([]);
    }),
    { numRuns: shortOrWhole(60, 3000) },
  );
  expect((await server.request('GET', '/api/bays/1')).status).toBe(200);
});
