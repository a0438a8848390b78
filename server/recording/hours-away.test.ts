import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { silentLog } from '../../contract/log.ts';
import { openDatabase, type Database } from '../../store/database.ts';
import { migrate } from '../../store/migrate.ts';
import { unclaimedRuns } from '../../store/runs.ts';
import { recordingOf } from '../../store/samples.ts';
import { freshDatabase, takeAway } from '../../store/testing/test-database.ts';
import { BenchClient } from '../testing/bench-client.ts';
import { KillableRecorder } from '../testing/killed-recorder.ts';
import { eventually } from '../testing/test-server.ts';

/** A minute and a half of pulls in the usual tests, or five hours. */
const pulls = process.env.SUVOK_SOAK ? 900 : 5;
const rateHz = 200;
const lapS = 20;

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

/** Bytes of the recorder's disk. */
const spoolBytes = () => {
  const place = join(recorder.folder, 'spool');
  return readdirSync(place).reduce((sum, file) => sum + statSync(join(place, file)).size, 0);
};

test('hours without a database: recording goes on, the recorder grows by its runs alone, and everything arrives', async () => {
  const client = await BenchClient.connect(recorder.benchLinkPort);
  client.hello({ device: 'patient-roller', protocol: 2, instance: 'one', channels: [{ name: 'rollerSpeed', unit: 'rad/s' }, { name: 'engineSpeed', unit: 'rpm' }, { name: 'mark', unit: '' }] }); // prettier-ignore
  await eventually('its welcome', () => client.received.find(({ type }) => type === 'welcome'));
  const bringBack = await takeAway(url);
  let frames = 0;
  const memory: number[] = [];
  for (let pull = 0; pull < pulls; pull++) {
    for (const until = (pull + 1) * lapS * rateHz; frames < until; frames++) {
      const phase = (frames / rateHz) % lapS;
      const speed = phase < 8 ? 20 : phase < 16 ? 20 + 9 * (phase - 8) : 92 - 18 * (phase - 16);
      client.frame((frames + 1) / rateHz, [speed, speed * 32, frames]);
    }
    // As fast as it is taken: a lap is safe before the next one is driven.
    await eventually('the lap', () => client.safeTo >= frames - 1);
    client.received.splice(0, client.received.length - 1);
    memory.push(recorder.memoryMb);
  }
  const bytes = spoolBytes();
  // Every row is kept in which a run lies somewhere near; the rest is the last minute and what is written over.
  const rows = pulls * lapS * rateHz * 4 * 8;
  if (process.env.SUVOK_SOAK) console.error({ pulls, hours: (pulls * lapS) / 3600, spoolMb: bytes / 2 ** 20, rowsMb: rows / 2 ** 20, memoryMb: [memory[9], Math.max(...memory), memory.at(-1)] }); // prettier-ignore
  expect(bytes).toBeLessThan(1.2 * rows + 24 * 2 ** 20);
  if (process.env.SUVOK_SOAK) expect(memory.at(-1)! - memory[9]!).toBeLessThan(80);
  await bringBack();
  const runs = await eventually('all runs', async () => {
    const found = await unclaimedRuns(database).catch(() => []);
    return found.filter(({ state }) => state === 'sealed').length === pulls && found;
  });
  const seen = new Set<number>();
  let doubled = 0;
  for (const run of runs)
    for (const mark of (await recordingOf(database, run)).channels[2]!.values) {
      if (seen.has(mark)) doubled++;
      seen.add(mark);
    }
  let missing = 0;
  for (let pull = 0; pull < pulls; pull++)
    for (let mark = (pull * lapS + 7) * rateHz; mark < (pull * lapS + 16) * rateHz; mark++) if (!seen.has(mark)) missing++; // prettier-ignore
  expect({ doubled, missing }).toEqual({ doubled: 0, missing: 0 });
  client.close();
}, 3_600_000);
