import { expect, test } from '@jest/globals';
import { silentLog } from '../../contract/values/service-log.ts';
import { plainSettings } from '../../contract/instruments/recording.ts';
import { Journal } from '../spool/journal.ts';
import { MemoryFiles } from '../testing/memory-files.ts';
import { rollerHello } from '../testing/test-instrument.ts';
import { Device } from './device.ts';

test('an instrument of an earlier life is not lost before whoever restores it says so', async () => {
  const files = new MemoryFiles();
  const before = await Journal.open(files, silentLog, { segmentBytes: 20_000 });
  before.openSession(rollerHello, plainSettings);
  await before.flush();
  const journal = await Journal.open(files, silentLog, { segmentBytes: 20_000 });
  const device = Device.restored(journal.sessions[0]!, journal);
  let lost = 0;
  device.on('lost', () => lost++);
  await new Promise((resolve) => setTimeout(resolve, 20));
  expect([device.gone, lost]).toEqual([false, 0]);
  device.lose();
  device.lose();
  expect([device.gone, lost]).toEqual([true, 1]);
});
