import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { createSocket } from 'node:dgram';
import { connect, createServer, type Server, type Socket } from 'node:net';
import { SerialPortMock } from 'serialport';
import { silentLog } from '../../contract/values/service-log.ts';
import type { BaysState } from '../../contract/bays/live.ts';
import type { PlainInstrument } from '../../contract/instruments/plain-instrument.ts';
import type { Run } from '../../contract/job/records.ts';
import { Lines } from '../../instrument/lines.ts';
import { linesPlace } from '../../recorder/local-link/socket-place.ts';
import { openSerial } from '../../instrument/adapters/serial-lines.ts';
import { startRecorder } from '../../recorder/start-recorder.ts';
import { eventually, TestServer } from '../testing/test-server.ts';

let server: TestServer;
let instrument: Server;
let sockets: Socket[];
let port: number;
beforeEach(async () => {
  server = await TestServer.start();
  sockets = [];
  instrument = createServer((socket) => {
    socket.on('error', () => undefined);
    sockets.push(socket);
  });
  await new Promise<void>((done) => instrument.listen(0, '127.0.0.1', done));
  ({ port } = instrument.address() as { port: number });
});
afterEach(async () => {
  for (const socket of sockets) socket.destroy();
  instrument.close();
  await server.stop();
  expect(server.errors).toEqual([]);
});

const bays = () => server.json<BaysState>('GET', '/api/bays');
const devices = async () => (await bays()).bays[0]!.devices;
const said = async (method: string, path: string, body?: unknown) => (await server.request(method, path, body)).text();
const roller = (way: PlainInstrument['way'], over: Partial<PlainInstrument> = {}): PlainInstrument => ({
  device: 'Old roller',
  kind: 'loaded-roller',
  way,
  form: {
    separator: ';',
    decimalComma: true,
    begins: '',
    columns: [
      { is: 'time', unit: 'ms' },
      { is: 'channel', name: 'rollerSpeed', unit: 'rpm' },
      { is: 'channel', name: 'absorberTorque', unit: 'N·m' },
      { is: 'nothing' },
      { is: 'channel', name: 'engineSpeed', unit: 'rpm' },
    ],
  },
  greeting: '',
  dyno: {
    kind: 'loaded-roller',
    inertiaKgM2: 9.5,
    radiusM: 0.159,
    parasitic: { aNm: 0, bNmPerRadS: 0, cNmPerRadS2: 0 },
  },
  engineToDrumRatio: null,
  ...over,
});
const connectIt = (one: PlainInstrument) => server.json('PUT', '/api/plain-instrument', { instrument: one });
/** Lines of a pull, from 3 to 9 s. */
const lines = Array.from({ length: 1200 }, (_, step) => {
  const pulled = Math.min(Math.max(step - 300, 0), 600) - 1.2 * Math.max(step - 900, 0);
  const radS = 60 + 0.15 * pulled;
  const rpm = ((radS * 60) / (2 * Math.PI)).toFixed(3).replace('.', ',');
  return `${step * 10};${rpm};${step > 300 && step < 900 ? 240 : 10};ok;${Math.round(radS * 20)}`;
});
const sealedRun = () =>
  eventually('the run', async () => {
    const runs = await server.json<Run[]>('GET', '/api/unclaimed-runs');
    return runs.find(({ state }) => state === 'sealed');
  });

describe('an instrument that sends lines', () => {
  test('over a connection that Suvok makes: asked, heard, recorded, remembered, changed and let go', async () => {
    await connectIt(roller({ by: 'tcp client', host: '127.0.0.1', port }, { greeting: 'START' }));
    const socket = await eventually('the connection', () => sockets[0]);
    const greeted = await new Promise((resolve) => socket.once('data', (bytes) => resolve(bytes.toString())));
    expect(greeted).toBe('START\r\n');
    await eventually('the device', async () => (await devices()).some(({ heard }) => heard));
    socket.write(`# ready\r\n${lines.join('\r\n')}\r\n`);
    const run = await sealedRun();
    expect(run).toMatchObject({ source: 'Old roller', bay: 1, remarks: [], dyno: { inertiaKgM2: 9.5 } });
    expect(run.channels).toEqual([
      { name: 'rollerSpeed', unit: 'rad/s' },
      { name: 'absorberTorque', unit: 'N·m' },
      { name: 'engineSpeed', unit: 'rpm' },
    ]);
    // It goes and comes back.
    socket.destroy();
    await eventually('its coming back', () => sockets.length > 1);
    await eventually('the device again', async () => (await devices()).some(({ connected }) => connected));
    expect(await said('POST', '/api/plain-instrument/disconnect', { device: 'nobody' })).toMatch(
      /No instrument called nobody/,
    );
    await server.json('POST', '/api/plain-instrument/disconnect', { device: 'Old roller' });
    expect(await devices()).toEqual([]);
    expect((await bays()).plain).toEqual([]);
  });

  test('is there again in the next life of the recorder, and in one that begins anew', async () => {
    await connectIt(roller({ by: 'tcp client', host: '127.0.0.1', port }));
    await eventually('the connection', () => sockets.length > 0);
    await server.recorder.close();
    for (const folder of [server.folder, `${server.folder}-new`]) {
      const before = sockets.length;
      const again = await startRecorder({
        databaseUrl: server.databaseUrl,
        folder,
        benchLinkPort: 0,
        floorBytes: 0,
        log: silentLog,
      });
      const lines = folder === server.folder ? undefined : new Lines(linesPlace(folder));
      await eventually('the connection again', () => sockets.length > before);
      await eventually('the device', () =>
        again.bays.state().bays[0]!.devices.some(({ device }) => device === 'Old roller'),
      );
      await again.close();
      lines?.close();
    }
  });

  test('over a connection that it makes, from the machine named and from no browser', async () => {
    const free = await freePort();
    await connectIt(roller({ by: 'tcp server', port: free, from: '127.0.0.1' }));
    const browser = await eventually('a listener', () => spokenTo(free));
    browser.write('POST / HTTP/1.1\r\nHost: localhost\r\n\r\n');
    await new Promise((resolve) => browser.once('close', resolve));
    await eventually('the sentence', async () => (await bays()).plain[0]!.problem?.includes('A browser spoke'));
    const socket = await eventually('a listener again', () => spokenTo(free));
    await eventually('the device', async () => (await devices()).some(({ connected }) => connected));
    socket.write(`${lines.join('\n')}\n`);
    expect(await sealedRun()).toMatchObject({ source: 'Old roller', remarks: [] });
    socket.destroy();
  });

  test('in packets, from the machine named alone, on a clock of ours', async () => {
    const free = await freePort();
    const columns = roller({ by: 'udp', port: free, from: '127.0.0.1' }).form.columns.slice(1);
    const form = { ...roller({ by: 'udp', port: free, from: '127.0.0.1' }).form, columns };
    await connectIt(roller({ by: 'udp', port: free, from: '127.0.0.1' }, { form }));
    const socket = createSocket('udp4');
    const send = (text: string) => new Promise((done) => socket.send(text, free, '127.0.0.1', done));
    let at = 0;
    await eventually('the device', async () => {
      await send(`${lines[at++]!.split(';').slice(1).join(';')}`);
      return (await devices()).some(({ heard }) => heard);
    });
    for (; at < 200; at++) await send(lines[at]!.split(';').slice(1).join(';'));
    await eventually(
      'its rows',
      async () => (await devices())[0]!.rateHz !== null || (await send(lines[0]!.split(';').slice(1).join(';')), false),
    );
    socket.close();
  });

  test.each([
    [
      {
        kind: 'engine-logger',
        dyno: null,
        form: {
          separator: ';',
          decimalComma: false,
          begins: '',
          columns: [{ is: 'channel', name: 'lambda', unit: '–' }],
        },
      },
      /logger needs engineSpeed/,
    ],
    [{ form: { separator: ',', decimalComma: true, begins: '', columns: [{ is: 'nothing' }] } }, /commas cannot part/],
    [
      { form: { separator: ';', decimalComma: true, begins: '', columns: [{ is: 'nothing' }] } },
      /name at least one column/,
    ],
    [{ dyno: null }, /needs its machine/],
    [{ way: { by: 'serial', path: 'rm -rf', baud: 9600 } }, /write a port such as/],
    [{ way: { by: 'tcp client', host: 'a b', port: 1 } }, /write a name or an address/],
  ])('%# is refused where it cannot be one', async (over, sentence) => {
    const one = { ...roller({ by: 'tcp client', host: '127.0.0.1', port }), ...over };
    const response = await server.request('PUT', '/api/plain-instrument', { instrument: one });
    expect(response.status).toBeGreaterThanOrEqual(400);
    expect(await response.text()).toMatch(sentence);
  });

  test('says why nothing comes', async () => {
    instrument.close();
    await connectIt(roller({ by: 'tcp client', host: '127.0.0.1', port }));
    await eventually('the reason', async () => (await bays()).plain[0]!.problem?.includes('nobody listens there'));
  });
});

describe('listening before anything is settled', () => {
  const listen = (way: object) => server.json<BaysState>('PUT', '/api/plain-instrument/trial', { way });

  test('shows the newest lines and their rate, cleaned, and takes none of them', async () => {
    await listen({ by: 'tcp client', host: '127.0.0.1', port });
    const socket = await eventually('the connection', () => sockets[0]);
    for (let at = 0; at < 30; at++) socket.write(`${at};\u0000\t${'x'.repeat(at === 29 ? 900 : 1)}\r\n`);
    const trial = await eventually('the lines', async () => {
      const { trial } = await bays();
      return trial?.count === 30 ? trial : undefined;
    });
    expect(trial).toMatchObject({ connected: true, problem: null });
    expect(trial.lines).toHaveLength(12);
    expect(trial.lines[0]).toBe('18;\tx');
    expect(trial.lines[11]).toHaveLength(400);
    expect(await devices()).toEqual([]);
    // Asked again it goes on with the same connection; on another way it begins anew.
    await listen({ by: 'tcp client', host: '127.0.0.1', port });
    expect(sockets).toHaveLength(1);
    await server.json('DELETE', '/api/plain-instrument/trial');
    expect((await bays()).trial).toBeNull();
    await eventually('the end of it', () => socket.destroyed || socket.readyState !== 'open');
  });

  test('borrows the way of an instrument that is settled, which goes on afterwards', async () => {
    const way = { by: 'tcp client', host: '127.0.0.1', port } as const;
    await connectIt(roller(way));
    await eventually('the connection', () => sockets.length === 1);
    await listen(way);
    await eventually('the trial’s', () => sockets.length === 2);
    await server.json('DELETE', '/api/plain-instrument/trial');
    await eventually('its own again', () => sockets.length === 3);
    await eventually('the device', async () => (await devices()).some(({ connected }) => connected));
  });
});

test('over a serial port: asked, its lines taken, and its going noticed', async () => {
  SerialPortMock.binding.reset();
  SerialPortMock.binding.createPort('/dev/ttyTEST', { record: true });
  const told: string[] = [];
  let texts = '';
  let opened: SerialPortMock | undefined;
  const port = openSerial(
    { by: 'serial', path: '/dev/ttyTEST', baud: 115_200 },
    'START',
    {
      opened: () => told.push('opened'),
      text: (text) => (texts += text),
      ended: (why) => told.push(`ended ${why ?? ''}`),
    },
    (path, baudRate) => Promise.resolve((opened = new SerialPortMock({ path, baudRate })) as never),
  );
  await eventually('its opening', () => told.includes('opened'));
  const binding = (opened as unknown as { port: { emitData(bytes: Buffer): void; recording: Buffer } }).port;
  await eventually('the greeting', () => binding.recording.toString() === 'START\r\n');
  binding.emitData(Buffer.from('1;2;3\r\n'));
  await eventually('the line', () => texts === '1;2;3\r\n');
  port.close();
  await eventually('its end', () => told.includes('ended '));
  // One that is not there says so.
  openSerial({ by: 'serial', path: '/dev/ttyNONE', baud: 9600 }, '', {
    opened: () => undefined,
    text: () => undefined,
    ended: (why) => told.push(why ?? ''),
  });
  await eventually('the reason', () => told.some((why) => why.includes('/dev/ttyNONE')));
});

/** A port that nobody has. */
async function freePort(): Promise<number> {
  const probe = createServer();
  await new Promise<void>((done) => probe.listen(0, '127.0.0.1', done));
  const { port: free } = probe.address() as { port: number };
  await new Promise((done) => probe.close(done));
  return free;
}

/** A connection to a port of this machine; undefined while nobody listens. */
const spokenTo = (free: number) =>
  new Promise<Socket | undefined>((resolve) => {
    const socket = connect(free, '127.0.0.1');
    socket.once('connect', () => resolve(socket));
    socket.once('error', () => resolve(undefined));
  });
