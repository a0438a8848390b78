import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, statfsSync } from 'node:fs';
import { freemem, tmpdir } from 'node:os';
import { join } from 'node:path';

/** Where Linux keeps files in memory. */
const memoryFolder = '/dev/shm';
/** The tests write about half a gigabyte; with less than this to spare they write to the disk. */
const leastRoom = 4 * 2 ** 30;
const prefix = 'suvok-test-';

/**
 * A folder for all that the tests write, in memory where there is room: they
 * create a hundred databases and thousands of files, keep none of them, and
 * on a disk wait for about a tenth of their time.
 * @param parent in whose place
 */
export function testsFolder(parent = inMemory() ? memoryFolder : tmpdir()): string {
  for (const name of readdirSync(parent))
    if (isLeft(name)) rmSync(join(parent, name), { recursive: true, force: true });
  return mkdtempSync(join(parent, `${prefix}${process.pid}-`));
}

/** Whether a run of the tests that was killed left a folder: whoever made it is gone. */
function isLeft(name: string): boolean {
  const [, maker] = new RegExp(`^${prefix}(\\d+)-`).exec(name) ?? [];
  if (maker === undefined) return false;
  try {
    process.kill(Number(maker), 0);
    return false;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'ESRCH';
  }
}

function inMemory(): boolean {
  if (!existsSync(memoryFolder) || !existsSync('/proc/mounts')) return false;
  const mount = readFileSync('/proc/mounts', 'utf8')
    .split('\n')
    .map((line) => line.split(' '))
    .find(([, place, kind]) => place === memoryFolder && kind === 'tmpfs');
  // Programs that are installed by a test are run there.
  if (!mount?.[3] || /(^|,)(noexec|ro)(,|$)/.test(mount[3])) return false;
  const { bavail, bsize } = statfsSync(memoryFolder);
  return Math.min(bavail * bsize, process.availableMemory?.() ?? freemem()) > leastRoom;
}
