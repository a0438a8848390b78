import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { unclaimedRuns } from '../../store/runs/runs.ts';
import { takeAway } from '../../store/testing/test-database.ts';
import { BenchClient } from '../testing/bench-client.ts';
import { KillBench } from '../testing/killed-recorder.ts';
import { allThere, markedChannels, MarkedDrive, marksFound, rateHz } from '../testing/marked-drive.ts';
import { eventually } from '../testing/test-server.ts';
import { inWhole, shortOrWhole } from '../../core/testing/short-or-whole.ts';

/** A minute and a half of pulls in the usual tests, or five hours. */
const pulls = shortOrWhole(8, 1640);

let bench: KillBench;
beforeEach(async () => (bench = await KillBench.start()) && undefined);
afterEach(() => bench.stop());

/** Bytes of the recorder's disk. */
const spoolBytes = () => {
  const place = join(bench.recorder.folder, 'spool');
  return readdirSync(place).reduce((sum, file) => sum + statSync(join(place, file)).size, 0);
};

test('hours without a database: recording goes on, the recorder grows by its runs alone, and everything arrives', async () => {
  const client = await BenchClient.connect(bench.recorder.benchLinkPort);
  client.hello({ device: 'patient-roller', protocol: 2, instance: 'one', channels: markedChannels });
  await eventually('its welcome', () => client.received.find(({ type }) => type === 'welcome'));
  const bringBack = await takeAway(bench.url);
  const drive = new MarkedDrive((time, values) => client.frame(time, values));
  const memory: number[] = [];
  let frames = 0;
  for (let pull = 1; pull <= pulls; pull++) {
    frames = drive.laps(pull);
    // As fast as it is taken: a lap is safe before the next one is driven.
    await eventually('the lap', () => client.safeTo >= frames - 1);
    client.received.splice(0, client.received.length - 1);
    memory.push(bench.recorder.memoryMb);
  }
  const bytes = spoolBytes();
  // Every row is kept in which a run lies somewhere near; the rest is the last minute and what is written over.
  const rows = frames * 4 * 8;
  if (inWhole)
    console.error({
      pulls,
      hours: frames / rateHz / 3600,
      spoolMb: bytes / 2 ** 20,
      rowsMb: rows / 2 ** 20,
      memoryMb: [memory[9], Math.max(...memory), memory.at(-1)],
    });
  expect(bytes).toBeLessThan(1.2 * rows + 24 * 2 ** 20);
  if (inWhole) expect(memory.at(-1)! - memory[9]!).toBeLessThan(80);
  await bringBack();
  await eventually('all runs', async () => {
    const found = await unclaimedRuns(bench.database).catch(() => []);
    return found.filter(({ state }) => state === 'sealed').length === pulls;
  });
  expect(await marksFound(bench.database, pulls)).toMatchObject(allThere(pulls));
  client.close();
}, 3_600_000);
