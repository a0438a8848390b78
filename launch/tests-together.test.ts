import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { groupsOf, writeGroups } from './tests-together.ts';

test('whatever files there are, each is in one group, with files of its own folder, the longest group first', () => {
  const files = fc.uniqueArray(
    fc
      .tuple(fc.constantFrom('core', 'server', 'web'), fc.stringMatching(/^[a-z]{1,8}$/))
      .map(([folder, name]) => `${folder}/${name}.test.ts`),
    { maxLength: 60 },
  );
  fc.assert(
    fc.property(files, fc.array(fc.double({ min: 0, max: 60, noNaN: true }), { maxLength: 60 }), (all, seconds) => {
      const times = Object.fromEntries(seconds.map((one, at) => [all[at] ?? '', one]));
      const groups = groupsOf(all, times);
      expect(groups.flatMap((group) => group.files).sort()).toEqual([...all].sort());
      for (const group of groups) expect(new Set(group.files.map((file) => file.split('/')[0])).size).toBe(1);
      expect(groups.map((group) => group.seconds)).toEqual(groups.map((group) => group.seconds).sort((a, b) => b - a));
    }),
  );
});

test('a file with an environment of its own, or whose modules keep what the page knows, stays by itself', () => {
  const folder = mkdtempSync(join(tmpdir(), 'suvok-groups-'));
  const files = ['core/air/air.test.ts', 'web/ui/saved-field.test.tsx', 'web/workers/run-readings.test.ts'];
  expect(writeGroups(resolve('.'), folder, files)).toEqual(files.slice(1));
  const [group, ...others] = readdirSync(folder);
  expect(others).toEqual([]);
  expect(readFileSync(join(folder, group!), 'utf8')).toMatch(/^import '.*core\/air\/air\.test\.ts';\n$/);
});
