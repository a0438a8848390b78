import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, writeFileSync } from 'node:fs';
import { delimiter, join } from 'node:path';
import { aptInstall, mayInstall } from './apt.ts';
import { Failure } from './failure.ts';

const debianFolder = '/usr/lib/postgresql';

/** The folder with `initdb` and `postgres`: on PATH, or where Debian puts its newest version. */
export function findPostgres(): string | undefined {
  const onPath = (process.env.PATH ?? '').split(delimiter);
  const versions = existsSync(debianFolder) ? readdirSync(debianFolder) : [];
  const debian = versions.sort((a, b) => Number(b) - Number(a)).map((version) => join(debianFolder, version, 'bin'));
  return [...onPath, ...debian].find(
    (folder) => existsSync(join(folder, 'initdb')) && existsSync(join(folder, 'postgres')),
  );
}

/**
 * Finds PostgreSQL, or installs Debian's package where that is allowed.
 * @throws Failure that says what to run
 */
export async function postgresPrograms(say: (text: string) => void): Promise<string> {
  const found = findPostgres();
  if (found) return found;
  const command = 'sudo apt-get install postgresql';
  if (!mayInstall())
    throw new Failure(`PostgreSQL was not found. Install it with: ${command} (or set DATABASE_URL to one that runs).`);
  say('Installing PostgreSQL (Debian package)');
  keepDebianFromStartingItsOwn();
  await aptInstall(
    ['postgresql'],
    `PostgreSQL could not be installed. Try: ${command} (or set DATABASE_URL to one that runs).`,
  );
  const installed = findPostgres();
  if (!installed) throw new Failure(`PostgreSQL was installed but not found. Try: ${command}`);
  return installed;
}

/** Debian's package starts a cluster of its own on installing; nobody asked for that one. */
function keepDebianFromStartingItsOwn(): void {
  const folder = '/etc/postgresql-common';
  if (existsSync(join(folder, 'createcluster.conf')) || spawnSync('pg_lsclusters').status === 0) return;
  mkdirSync(folder, { recursive: true });
  writeFileSync(
    join(folder, 'createcluster.conf'),
    '# Written by Suvok: it makes a cluster of its own.\ncreate_main_cluster = false\n',
  );
}
