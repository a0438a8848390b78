import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { silentLog } from '../../contract/log.ts';
import { openDatabase, type Database } from '../../store/database.ts';
import { migrate } from '../../store/migrate.ts';
import { unclaimedRuns } from '../../store/runs.ts';
import { recordingOf } from '../../store/samples.ts';
import { freshDatabase, takeAway } from '../../store/testing/test-database.ts';
import { BenchClient } from '../testing/bench-client.ts';
import { KillableRecorder } from '../testing/killed-recorder.ts';
import { eventually } from '../testing/test-server.ts';

/** A minute of it in the usual tests, or a thousand times. */
const kills = process.env.SUVOK_SOAK ? 1000 : 12;
const rateHz = 200;

let database: Database;
let url: string;
let drop: () => Promise<void>;
let recorder: KillableRecorder;
beforeEach(async () => {
  ({ url, drop } = await freshDatabase());
  await migrate(url);
  database = openDatabase(url, silentLog);
  recorder = new KillableRecorder(url);
  await recorder.start();
});
afterEach(async () => {
  await recorder.kill('SIGTERM');
  await database.end();
  await drop();
});

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const hello = {
  device: 'killed-roller',
  channels: [
    { name: 'rollerSpeed', unit: 'rad/s' },
    { name: 'engineSpeed', unit: 'rpm' },
    { name: 'mark', unit: '' },
  ],
};

/** One pull after the other: 4 s in gear, 5 s of pulling, 2 s of coast. Every frame carries its own number. */
class Drive {
  private frames = 0;

  constructor(private readonly client: BenchClient) {}

  /** Frames up to a time, s. @returns frames so far */
  until(timeS: number): number {
    for (; this.frames < timeS * rateHz; this.frames++) {
      const phase = (this.frames / rateHz) % 11;
      const speed = phase < 4 ? 20 : phase < 9 ? 20 + 14 * (phase - 4) : 90 - 35 * (phase - 9);
      this.client.frame((this.frames + 1) / rateHz, [speed, speed * 32, this.frames]);
    }
    return this.frames;
  }
}

interface Found {
  runs: number;
  whole: number;
  stored: number;
  doubled: number;
  wrong: number;
  missing: number;
}

/** What the database has of a drive of so many whole pulls. */
async function found(pulls: number): Promise<Found> {
  const runs = await unclaimedRuns(database);
  const seen = new Set<number>();
  const result: Found = { runs: runs.length, whole: 0, stored: 0, doubled: 0, wrong: 0, missing: 0 };
  for (const run of runs) {
    if (run.state === 'sealed') result.whole++;
    const { time, channels } = await recordingOf(database, run);
    const marks = channels[2]!.values;
    marks.forEach((mark, at) => {
      if (seen.has(mark)) result.doubled++;
      seen.add(mark);
      if (Math.abs(time[at]! - (mark + 1) / rateHz) > 1e-9 || (at > 0 && mark !== marks[at - 1]! + 1)) result.wrong++;
    });
    result.stored += marks.length;
  }
  // Half a second before each pull to its lift.
  for (let pull = 0; pull < pulls; pull++)
    for (let mark = (11 * pull + 3.5) * rateHz; mark < (11 * pull + 9) * rateHz; mark++) if (!seen.has(mark)) result.missing++; // prettier-ignore
  return result;
}

test('killed at random, and with the database away now and then: every pull is there, whole, once and in order', async () => {
  const client = await BenchClient.connect(recorder.benchLinkPort);
  client.hello({ ...hello, protocol: 2, instance: 'one' });
  const drive = new Drive(client);
  // Six times as fast as it is driven.
  const began = Date.now();
  let driving = true;
  const driven = (async () => {
    while (driving) {
      drive.until((6 * (Date.now() - began)) / 1000);
      await pause(10);
    }
  })();
  for (let kill = 0; kill < kills; kill++) {
    await pause(100 + Math.random() * 1400);
    const away = kill % 4 === 3;
    const bringBack = away ? await takeAway(url) : undefined;
    if (away) await pause(Math.random() * 300);
    await recorder.kill();
    const [started] = [recorder.start(), away ? pause(Math.random() * 2000) : undefined];
    await started;
    await client.comeBack(recorder.benchLinkPort);
    await pause(Math.random() * 500);
    await bringBack?.();
  }
  driving = false;
  await driven;
  const pulls = Math.ceil((6 * (Date.now() - began)) / 11_000);
  const handedOver = drive.until(11 * pulls + 4);
  await eventually('all of it being safe', () => client.safeTo >= handedOver - 1);
  // What is not there by then is missing, and counted below.
  await eventually('the last run', async () => (await unclaimedRuns(database)).filter(({ state }) => state === 'sealed').length >= pulls).catch(() => undefined); // prettier-ignore
  const result = await found(pulls);
  if (process.env.SUVOK_SOAK) console.error({ kills, handedOver, acknowledged: client.safeTo + 1, ...result });
  expect(result).toMatchObject({ runs: pulls, whole: pulls, doubled: 0, wrong: 0, missing: 0 });
  client.close();
}, 7_200_000);

test('an instrument that cannot send again loses no more than the last moment, and its two halves are no whole runs', async () => {
  const client = await BenchClient.connect(recorder.benchLinkPort);
  client.hello(hello);
  const drive = new Drive(client);
  drive.until(4);
  // As it is driven, so that a frame's number tells when it was sent.
  const began = Date.now();
  while (Date.now() - began < 2500) {
    drive.until(4 + (Date.now() - began) / 1000);
    await pause(2);
  }
  const lastSent = drive.until(4 + (Date.now() - began) / 1000) - 1;
  await recorder.kill();
  await recorder.start();
  await client.comeBack(recorder.benchLinkPort);
  drive.until(15);
  const runs = await eventually('both halves', async () => {
    const found = await unclaimedRuns(database);
    return found.length === 2 && found.every(({ state }) => state === 'interrupted') && found;
  });
  expect(runs[0]!.remarks.join(' ')).toMatch(/recorder stopped during this run.*kept/);
  expect(runs[1]!.remarks.join(' ')).toMatch(/its beginning is missing/);
  const marks = (await recordingOf(database, runs[0]!)).channels[2]!.values;
  const lostMs = (1000 * (lastSent - marks.at(-1)!)) / rateHz;
  if (process.env.SUVOK_SOAK) console.error({ lostMs });
  expect(lostMs).toBeLessThan(400);
  client.close();
});
