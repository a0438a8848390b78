import { execFileSync } from 'node:child_process';
import { existsSync, statSync } from 'node:fs';
import { dirname } from 'node:path';
import { Failure } from './failure.ts';

/** The user that PostgreSQL runs as: it refuses to run as root. */
export interface Account {
  uid: number;
  gid: number;
}

/** The account for PostgreSQL's processes; undefined where the present user may run them itself. */
export function databaseAccount(): Account | undefined {
  if (process.getuid?.() !== 0) return undefined;
  for (const name of ['postgres', 'nobody']) {
    try {
      const id = (flag: string) =>
        Number(execFileSync('id', [flag, name], { encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] }));
      return { uid: id('-u'), gid: id('-g') };
    } catch {
      continue;
    }
  }
  throw new Failure(
    'PostgreSQL does not run as root and there is no account "postgres" to run it as; run npm start as another user.',
  );
}

/** True when an account can walk down to a folder: every folder above it lets others through. */
export function canReach(folder: string, account: Account): boolean {
  for (let place = folder; ; place = dirname(place)) {
    if (existsSync(place)) {
      const { mode, uid, gid } = statSync(place);
      const through = uid === account.uid ? 0o100 : gid === account.gid ? 0o010 : 0o001;
      if (!(mode & through)) return false;
    }
    if (place === dirname(place)) return true;
  }
}
