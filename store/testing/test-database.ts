import { createHash, randomUUID } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type pg from 'pg';
import { connected } from '../database/database.ts';
import { migrate } from '../database/migrate.ts';
import { ensureRole, letWork } from '../database/roles.ts';
import { migrationsFolder } from '../database/schema-state.ts';

function adminUrl(): string {
  const url = process.env.SUVOK_TEST_DATABASE_URL;
  if (!url)
    throw new Error('SUVOK_TEST_DATABASE_URL is not set: run npm test, which starts a PostgreSQL for the tests.');
  return url;
}

/** One statement of the administrator's, outside any database of the tests. */
const asAdministrator = (sql: string) => administering(async (client) => void (await client.query(sql)));

const administering = (work: (client: pg.Client) => Promise<void>) => connected(adminUrl(), work);

export interface TestDatabase {
  name: string;
  /** As its owner. */
  url: string;
  drop(): Promise<void>;
}

function addressOf(name: string): string {
  const url = new URL(adminUrl());
  url.pathname = `/${name}`;
  return url.toString();
}

let schemaMade: Promise<string> | undefined;

type Begin = 'with nothing' | 'with the schema';

/**
 * A database that several processes copy: made by the first one that wants it, while the others wait. It goes with the
 * cluster of the tests.
 * @param make given its address; nobody is connected to it when it has settled
 */
export async function madeOnce(
  name: string,
  make: (url: string) => Promise<unknown>,
  begin: Begin = 'with the schema',
): Promise<string> {
  const copied = begin === 'with the schema' ? await withSchema() : undefined;
  await administering(async (client) => {
    await client.query('select pg_advisory_lock(hashtext($1))', [name]);
    const { rowCount } = await client.query('select from pg_database where datname = $1', [name]);
    if (rowCount) return;
    const making = `${name}_making`;
    await client.query(`drop database if exists ${making} with (force)`);
    await client.query(`create database ${making}${copied ? ` template ${copied}` : ''}`);
    await make(addressOf(making));
    await client.query(`alter database ${making} rename to ${name}`);
  });
  return name;
}

/** A database with the schema of these migrations and nothing in it: to copy it takes a tenth of the time. @returns its name */
function withSchema(): Promise<string> {
  const written = readdirSync(migrationsFolder)
    .sort()
    .map((name) => readFileSync(join(migrationsFolder, name)));
  const name = `test_schema_${createHash('sha256').update(Buffer.concat(written)).digest('hex').slice(0, 12)}`;
  return (schemaMade ??= madeOnce(name, migrate, 'with nothing'));
}

/** A database of its own for a test file, its schema made: with nothing in it, or a copy of another one that nobody is connected to. */
export async function freshDatabase(copyOf?: string): Promise<TestDatabase> {
  return made(copyOf ?? (await withSchema()));
}

/** A database that nothing was done in yet. */
export const emptyDatabase = (): Promise<TestDatabase> => made();

async function made(copyOf?: string): Promise<TestDatabase> {
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  await asAdministrator(`create database ${name}${copyOf ? ` template ${copyOf}` : ''}`);
  return { name, url: addressOf(name), drop: () => asAdministrator(`drop database ${name} with (force)`) };
}

/** Breaks every connection to a database and lets none in, until the function that is returned is called. */
export async function takeAway(databaseUrl: string): Promise<() => Promise<void>> {
  const name = new URL(databaseUrl).pathname.slice(1);
  await asAdministrator(`alter database ${name} with allow_connections false`);
  await asAdministrator(`select pg_terminate_backend(pid) from pg_stat_activity where datname = '${name}'`);
  return () => asAdministrator(`alter database ${name} with allow_connections true`);
}

/** The application's role of the tests' database. */
const application = { role: 'test_application', password: 'test' };

let roleMade: Promise<void> | undefined;
/** Roles are the cluster's: once a process, and one process after the other. */
const madeRole = () =>
  (roleMade ??= administering(async (client) => {
    await client.query('select pg_advisory_lock(1)');
    await ensureRole(client, application.role, application.password);
  }));

/**
 * Lets the application work in a database whose schema is made.
 * @returns its address for that role, which owns nothing and administers nothing
 */
export async function asApplication(databaseUrl: string): Promise<string> {
  await madeRole();
  await connected(databaseUrl, (client) => letWork(client, application.role));
  const url = new URL(databaseUrl);
  [url.username, url.password] = [application.role, application.password];
  return url.toString();
}
