import { mkdtemp, rm } from 'node:fs/promises';
import { createServer, type Socket } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import type { BaysState } from '../contract/bays/live.ts';
import { usualPlan } from '../contract/instruments/recording.ts';
import { wordsBlock } from '../recorder/local-link/blocks.ts';
import { RecorderClient } from './recorder-client.ts';

/** A recorder that says what it is told to, and nothing else. */
const bays: BaysState = {
  type: 'bays',
  bays: [
    {
      bay: 1,
      name: 'Bay 1',
      devices: [],
      air: null,
      mounted: null,
      plan: usualPlan,
      recorder: { state: 'recording', runId: null, label: null, startedS: 1, lastRunId: null, problem: null },
    },
  ],
  unplaced: [],
  plain: [],
  trial: null,
  pairing: { outside: null, until: null, instruments: [] },
  silentSince: null,
};
let folder: string;
const peers: Socket[] = [];
let stop: () => Promise<void>;
let client: RecorderClient;

beforeEach(async () => {
  folder = await mkdtemp(join(tmpdir(), 'suvok-hung-'));
  const place = join(folder, 'socket');
  const server = createServer((socket) => {
    peers.push(socket);
    socket.on('error', () => undefined);
    socket.write(wordsBlock(bays));
  });
  await new Promise<void>((resolve) => server.listen(place, resolve));
  stop = async () => {
    for (const peer of peers.splice(0)) peer.destroy();
    await new Promise((resolve) => server.close(resolve));
  };
  client = new RecorderClient(place);
  await client.ready();
});
afterEach(async () => {
  client.close();
  await stop();
  await rm(folder, { recursive: true });
});

test('a recorder that hangs: a key is refused within a second, and soon all it said counts as old, with the time', async () => {
  const from = performance.now();
  await expect(client.ask({ ask: 'end', bay: 1, with: {} })).rejects.toThrow(/has said nothing since \d\d:\d\d:\d\d/);
  expect(performance.now() - from).toBeLessThan(1000);
  await new Promise<void>((resolve) => client.once('changed', resolve));
  expect(performance.now() - from).toBeLessThan(4000);
  const [bay] = client.state().bays;
  expect(bay!.recorder).toMatchObject({ state: 'recording', problem: expect.stringMatching(/what it shows is old/) });
  // It is not waited for again while it says nothing.
  const again = performance.now();
  await expect(client.ask({ ask: 'end', bay: 1, with: {} })).rejects.toThrow(/has said nothing/);
  expect(performance.now() - again).toBeLessThan(50);
  // Its next word ends that.
  peers[0]!.write(wordsBlock(bays));
  await new Promise<void>((resolve) => client.once('changed', resolve));
  expect(client.state().bays[0]!.recorder.problem).toBeNull();
});

test('a recorder that speaks and does not answer a key is not called silent', async () => {
  const speaks = setInterval(() => peers[0]!.write(wordsBlock(bays)), 200);
  try {
    await expect(client.ask({ ask: 'end', bay: 1, with: {} })).rejects.toThrow(/^The recorder does not answer;/);
    expect(client.state()).toMatchObject({ silentSince: null });
  } finally {
    clearInterval(speaks);
  }
});
