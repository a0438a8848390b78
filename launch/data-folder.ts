import { createHash } from 'node:crypto';
import { accessSync, chmodSync, constants, existsSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { canReach, type Account } from './account.ts';
import { Failure } from './failure.ts';
import { makeFolders } from './folders.ts';

const project = resolve(import.meta.dirname, '..');

/**
 * The folder that keeps the database and the log: SUVOK_DATA, or `data` in
 * the project. Where PostgreSQL's account cannot reach the project (a clone
 * under root's home), another folder serves and the caller says so.
 */
export function dataFolder(account: Account | undefined): { folder: string; elsewhere: boolean } {
  const wanted = resolve(process.env.SUVOK_DATA ?? join(project, 'data'));
  if (!account || canReach(wanted, account)) return { folder: wanted, elsewhere: false };
  if (process.env.SUVOK_DATA) {
    throw new Failure(
      `PostgreSQL's account cannot reach SUVOK_DATA (${wanted}): a folder above it is closed to others. Choose another folder.`,
    );
  }
  const name = createHash('sha256').update(project).digest('hex').slice(0, 8);
  return { folder: `/var/lib/suvok-${name}`, elsewhere: true };
}

/** @throws Failure when the folder cannot be made or written */
export function prepareFolder(folder: string, account?: Account): void {
  try {
    makeFolders(folder);
    // Whatever the present umask: PostgreSQL's account has to pass through to its own folder.
    if (account) chmodSync(folder, statSync(folder).mode | 0o011);
    accessSync(folder, constants.W_OK | constants.X_OK);
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    throw new Failure(`The data folder ${folder} cannot be written (${code}). Set SUVOK_DATA to a folder that can.`);
  }
}

/**
 * Marks the folder as in use by this process.
 * @returns gives it up
 * @throws Failure when another Suvok uses it
 */
export function claimFolder(folder: string): () => void {
  const file = join(folder, 'in-use-by');
  const other = existsSync(file) ? Number(readFileSync(file, 'utf8')) : 0;
  if (other > 0 && other !== process.pid && isSuvok(other)) {
    throw new Failure(
      `Suvok already runs on ${folder} (process ${other}). Stop it first, or set SUVOK_DATA and PORT for a second one.`,
    );
  }
  writeFileSync(file, String(process.pid));
  return () => rmSync(file, { force: true });
}

/** True for a living process that was started by our bootstrap: numbers are given out again. */
function isSuvok(pid: number): boolean {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('bootstrap.cjs');
  } catch {
    return false;
  }
}
