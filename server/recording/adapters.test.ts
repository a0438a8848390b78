import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { createServer, type Server, type Socket } from 'node:net';
import type { Run } from '../../contract/job/records.ts';
import { eventually, TestServer } from '../testing/test-server.ts';
import { AdaptedInstrument } from '../../instrument/adapters/adapted-instrument.ts';
import { adaptedPlaces } from '../../instrument/adapters/adapters.ts';
import { semicolonLines } from '../../instrument/adapters/semicolon-lines.ts';

let server: TestServer;
let instrument: Server;
const sockets: Socket[] = [];
beforeAll(async () => {
  server = await TestServer.start();
  instrument = createServer((socket) => sockets.push(socket));
  await new Promise<void>((done) => instrument.listen(0, '127.0.0.1', done));
});
afterAll(async () => {
  instrument.close();
  await server.stop();
});

test('lines become readings; remarks and rubbish become none', () => {
  const read = semicolonLines.reader();
  expect(read('12.345;61.20;182.4;2034', { of: 1, at: 0 })).toEqual({ time: 12.345, values: [61.2, 182.4, 2034] });
  expect(read('12.355;61.30;182.4;-', { of: 1, at: 0 })).toEqual({ time: 12.355, values: [61.3, 182.4, null] });
  for (const line of ['# warming up', '1;2', 'x;1;2;3', '1;a;2;3', ''])
    expect(read(line, { of: 1, at: 0 })).toBeUndefined();
});

test('the setting is read, and what is wrong with it is named', () => {
  expect(adaptedPlaces(' semicolon-lines=192.168.1.20:7000, ')).toMatchObject([
    { device: 'semicolon-lines-192.168.1.20-7000', way: { host: '192.168.1.20', port: 7000 } },
  ]);
  expect(() => adaptedPlaces('semicolon-lines')).toThrow(/name=host:port/);
  expect(() => adaptedPlaces('other=127.0.0.1:1')).toThrow(/no adapter "other"; there are semicolon-lines/);
});

test('an instrument behind an adapter is heard, its pull recorded, its rubbish named, and it comes back', async () => {
  const { port } = instrument.address() as { port: number };
  const adapted = new AdaptedInstrument(
    { adapter: semicolonLines, device: 'semicolons', way: { by: 'tcp client', host: '127.0.0.1', port } },
    server.running.benchLinkPort,
  );
  const socket = await eventually('the connection', () => sockets[0]);
  await eventually('the device', async () => (await server.bay()).devices.length === 1);
  socket.write('# ready\nthis is no reading\n');
  await eventually('the rubbish named', async () =>
    (await server.bay()).devices[0]!.problem?.includes('this is no reading'),
  );
  let speed = 60;
  for (let step = 0; step < 1200; step++) {
    const pulling = step > 300 && step < 900;
    speed += pulling ? 0.15 : step >= 900 ? -0.2 : 0;
    socket.write(`${(step / 100).toFixed(2)};${speed.toFixed(3)};${pulling ? 240 : 10};${(speed * 20).toFixed(0)}\n`);
  }
  const runs = await eventually('the run', async () => {
    const found = await server.json<Run[]>('GET', '/api/unclaimed-runs');
    return found.some((run) => run.state === 'sealed') ? found : undefined;
  });
  expect(runs[0]).toMatchObject({ state: 'sealed', source: 'Roller with semicolons', dyno: { kind: 'loaded-roller' } });
  socket.destroy();
  await eventually('its coming back', () => sockets.length > 1);
  await eventually('the device again', async () => (await server.bay()).devices.some(({ connected }) => connected));
  adapted.close();
});
