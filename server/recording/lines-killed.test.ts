import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { createServer, type Server, type Socket } from 'node:net';
import type { PlainInstrument } from '../../contract/instruments/plain-instrument.ts';
import { testDyno } from '../../core/testing/test-car.ts';
import { Lines } from '../../instrument/lines.ts';
import { linesPlace, socketPlace } from '../../recorder/local-link/socket-place.ts';
import { unclaimedRuns } from '../../store/runs/runs.ts';
import { RecorderClient } from '../recorder-client.ts';
import { KillBench } from '../testing/killed-recorder.ts';
import { allThere, lapS, markedChannels, MarkedDrive, marksFound } from '../testing/marked-drive.ts';
import { eventually } from '../testing/test-server.ts';

let bench: KillBench;
let lines: Lines;
let instrument: Server;
let socket: Socket | undefined;
let asking: RecorderClient;
beforeEach(async () => {
  bench = await KillBench.start();
  asking = new RecorderClient(socketPlace(bench.recorder.folder));
  lines = new Lines(linesPlace(bench.recorder.folder));
  instrument = createServer((comes) => (socket = comes));
  await new Promise<void>((done) => instrument.listen(0, '127.0.0.1', done));
});
afterEach(async () => {
  asking.close();
  lines.close();
  socket?.destroy();
  instrument.close();
  await bench.stop();
});

test('a recorder that is killed three times in a pull loses none of the lines of an instrument', async () => {
  const { port } = instrument.address() as { port: number };
  await asking.ready();
  const form: PlainInstrument['form'] = {
    separator: ';',
    decimalComma: false,
    begins: '',
    columns: [{ is: 'time', unit: 's' }, ...markedChannels.map((channel) => ({ is: 'channel' as const, ...channel }))],
  };
  const roller: PlainInstrument = {
    device: 'Old roller',
    kind: 'inertia-roller',
    dyno: testDyno,
    way: { by: 'tcp client', host: '127.0.0.1', port },
    form,
    greeting: '',
    engineToDrumRatio: null,
  };
  await asking.ask({ ask: 'connect plain', with: { instrument: roller, bay: null } });
  await eventually('the connection', () => socket);
  const drive = new MarkedDrive((time, values) => socket!.write(`${[time, ...values].join(';')}\n`));
  drive.until(4);
  const began = Date.now();
  // One lap and no more, however long the recorder takes to start: what follows would be a second pull.
  const driven = () => drive.until(Math.min(lapS, 4 + (Date.now() - began) / 1000));
  const driving = setInterval(driven, 10);
  for (let kill = 0; kill < 3; kill++) {
    await eventually('a moment of the pull', () => Date.now() - began > 800 + 1500 * kill);
    await bench.recorder.kill();
    await bench.recorder.start();
  }
  await eventually('the lift', () => Date.now() - began > 5500);
  clearInterval(driving);
  drive.laps(1);
  await eventually('the run', async () =>
    (await unclaimedRuns(bench.database)).some(({ state }) => state === 'sealed'),
  );
  expect(await marksFound(bench.database, 1)).toMatchObject(allThere(1));
});
