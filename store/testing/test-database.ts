import { randomUUID } from 'node:crypto';
import pg from 'pg';

function adminUrl(): string {
  const url = process.env.SUVOK_TEST_DATABASE_URL;
  if (!url)
    throw new Error('SUVOK_TEST_DATABASE_URL is not set: run npm test, which starts a PostgreSQL for the tests.');
  return url;
}

/** One statement of the administrator's, outside any database of the tests. */
async function asAdministrator(sql: string): Promise<void> {
  const client = new pg.Client({ connectionString: adminUrl() });
  await client.connect();
  try {
    await client.query(sql);
  } finally {
    await client.end();
  }
}

export interface TestDatabase {
  name: string;
  url: string;
  drop(): Promise<void>;
}

/** A database of its own for a test file: empty, or a copy of another one that nobody is connected to. */
export async function freshDatabase(copyOf?: string): Promise<TestDatabase> {
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  await asAdministrator(`create database ${name}${copyOf ? ` template ${copyOf}` : ''}`);
  const url = new URL(adminUrl());
  url.pathname = `/${name}`;
  return { name, url: url.toString(), drop: () => asAdministrator(`drop database ${name} with (force)`) };
}

/** Breaks every connection to a database and lets none in, until the function that is returned is called. */
export async function takeAway(databaseUrl: string): Promise<() => Promise<void>> {
  const name = new URL(databaseUrl).pathname.slice(1);
  await asAdministrator(`alter database ${name} with allow_connections false`);
  await asAdministrator(`select pg_terminate_backend(pid) from pg_stat_activity where datname = '${name}'`);
  return () => asAdministrator(`alter database ${name} with allow_connections true`);
}
