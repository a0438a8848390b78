import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { group as grouped, rollup } from 'd3-array';
import { z } from 'zod';
import { hasOwnEnvironment } from './test-parts.ts';

/**
 * Jest makes a new world for each of its files: modules are loaded, compiled and run anew, for a file of the server's
 * tests 2.5 s of a processor. So files of one folder are run together: a group is a file that imports them, and the
 * transform (jest.transform.cjs) puts each into a `describe` of its own, so that hooks stay with their file.
 */

/** Seconds that each file of tests takes by itself, as they were measured once: only for parting them evenly. */
const timesFile = join(import.meta.dirname, 'test-times.json');
export const testTimes = z.record(z.string(), z.number());
export const knownTimes = (): Record<string, number> => testTimes.parse(JSON.parse(readFileSync(timesFile, 'utf8')));

/** Writes down what was measured. @param took tests with their files, ms */
export function writeTimes(took: readonly { file: string; ms: number }[]): void {
  const seconds = rollup(
    took,
    (tests) => Math.round(tests.reduce((sum, { ms }) => sum + ms, 0) / 100) / 10,
    ({ file }) => file,
  );
  writeFileSync(timesFile, `${JSON.stringify(Object.fromEntries([...seconds].sort()), null, 1)}\n`);
}

/** A file of which nobody knows how long it takes, s. */
const usualS = 1;
/** Groups take about this long each, s: few enough worlds, and enough groups to keep all workers busy to the end. */
const groupS = 60;

/** Files of tests that share a world, and how long they take. */
export interface TestGroup {
  name: string;
  files: readonly string[];
  seconds: number;
}

/**
 * Parts files of tests into groups, those of one folder at the top together; the longest group first.
 * @param files by their paths in the project
 * @param times seconds by path
 */
export function groupsOf(files: readonly string[], times: Readonly<Record<string, number>>): TestGroup[] {
  const folders = grouped([...files].sort(), (file) => file.slice(0, file.indexOf('/')));
  return [...folders]
    .flatMap(([folder, own]) => evenly(own, times).map((group, at) => ({ ...group, name: `${folder}-${at + 1}` })))
    .sort((one, other) => other.seconds - one.seconds);
}

/** The longest file first, each to the group that has least so far. */
function evenly(files: readonly string[], times: Readonly<Record<string, number>>): Omit<TestGroup, 'name'>[] {
  const secondsOf = (file: string) => times[file] ?? usualS;
  const total = files.reduce((sum, file) => sum + secondsOf(file), 0);
  const groups = Array.from({ length: Math.max(1, Math.round(total / groupS)) }, () => ({
    files: [] as string[],
    seconds: 0,
  }));
  for (const file of [...files].sort((one, other) => secondsOf(other) - secondsOf(one))) {
    const least = groups.reduce((best, group) => (group.seconds < best.seconds ? group : best));
    least.files.push(file);
    least.seconds += secondsOf(file);
  }
  return groups.filter((group) => group.files.length > 0);
}

/** What the page keeps for as long as it is open is in its modules: such files begin with fresh ones. */
const keepsInModules = /^web\/(state|workers)\//;

/**
 * Writes the groups into a folder, as files that are named in the order in which they are to begin.
 * @returns the files that stay by themselves, for they need an environment or modules of their own
 */
export function writeGroups(project: string, folder: string, files: readonly string[]): string[] {
  const alone = files.filter((file) => keepsInModules.test(file) || hasOwnEnvironment(join(project, file)));
  const groups = groupsOf(
    files.filter((file) => !alone.includes(file)),
    knownTimes(),
  );
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder, { recursive: true });
  groups.forEach(({ name, files: own }, at) => {
    const path = join(folder, `${String(at).padStart(3, '0')}-${name}.test.ts`);
    const imports = own.map((file) => `import '${relative(dirname(path), join(project, file))}';\n`);
    writeFileSync(path, imports.join(''));
  });
  return alone;
}
