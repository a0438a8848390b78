import { afterAll, expect, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { testsFolder } from './tests-folder.ts';

const parent = mkdtempSync(join(tmpdir(), 'suvok-folders-'));
afterAll(() => rmSync(parent, { recursive: true, force: true }));

test('what a killed run left is cleared away; what is in use, or of others, is not', () => {
  const { pid: gone } = spawnSync(process.execPath, ['-e', '']);
  const [left, used, others] = [`suvok-test-${gone}-abc`, `suvok-test-${process.pid}-abc`, 'suvok-test-notes'].map(
    (name) => join(parent, name),
  ) as [string, string, string];
  for (const folder of [left, used, others]) mkdirSync(join(folder, 'within'), { recursive: true });
  const made = testsFolder(parent);
  expect([left, used, others, made].map(existsSync)).toEqual([false, true, true, true]);
});
