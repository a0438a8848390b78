import { expect, test } from '@jest/globals';
import { newestDaily } from './backups.ts';

test('the newest daily backup is told by its name; others and rubbish are none', () => {
  const names = [
    'suvok-2026-11-26T030000Z-daily.backup',
    'suvok-2026-11-27T030501Z-daily.backup',
    'suvok-2026-11-27T030501Z-daily.backup.json',
    'suvok-2026-11-28T030501Z-daily.backup.part',
    'suvok-2026-11-29T030501Z-asked.backup',
    'notes.txt',
  ];
  expect(newestDaily(names)).toEqual(new Date('2026-11-27T03:05:01Z'));
  expect(newestDaily(['suvok-2026-11-29T030501Z-asked.backup'])).toBeUndefined();
});
