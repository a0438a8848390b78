import { randomUUID } from 'node:crypto';
import pg from 'pg';
import type { Job, Run } from '../../contract/records.ts';
import type { BayState } from '../../contract/live.ts';
import { silentLog } from '../../recorder/log.ts';
import { startServer, type RunningServer } from '../server.ts';

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

/** A whole server on a fresh database, and the few requests that most tests make. */
export class TestServer {
  private constructor(
    readonly running: RunningServer,
    readonly databaseUrl: string,
    private readonly drop: () => Promise<void>,
    readonly errors: unknown[],
  ) {}

  static async start(): Promise<TestServer> {
    const database = await freshDatabase();
    const errors: unknown[] = [];
    const running = await startServer({
      databaseUrl: database.url,
      port: 0,
      benchLinkPort: 0,
      log: { ...silentLog, error: (fields) => errors.push((fields as { err?: unknown }).err ?? fields) },
    });
    return new TestServer(running, database.url, database.drop, errors);
  }

  async stop(): Promise<void> {
    await this.running.close();
    const own = this.errors.length;
    await this.drop();
    // Connections that were still closing are torn away with the database: no mistake of the server's.
    this.errors.length = own;
  }

  get origin(): string {
    return `http://127.0.0.1:${this.running.port}`;
  }

  async request(method: string, path: string, body?: unknown): Promise<Response> {
    return fetch(this.origin + path, {
      method,
      ...(body === undefined ? {} : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
    });
  }

  async json<T>(method: string, path: string, body?: unknown): Promise<T> {
    const response = await this.request(method, path, body);
    const content = (await response.json()) as T;
    if (!response.ok) throw new Error(`${method} ${path}: ${response.status} ${JSON.stringify(content)}`);
    return content;
  }

  newJob(vehicle = 'Test car'): Promise<Job> {
    return this.json<Job>('POST', '/api/jobs', { vehicle });
  }

  async mount(job: Job, setupId = job.setups[0]!.id): Promise<void> {
    await this.json('PUT', '/api/bay/mounted', { jobId: job.id, setupId });
  }

  bay(): Promise<BayState> {
    return this.json<BayState>('GET', '/api/bay');
  }

  async runs(job: Job): Promise<Run[]> {
    return (await this.json<Job>('GET', `/api/jobs/${job.id}`)).runs;
  }
}

/** Waits until a question has an answer. @throws after half a minute, with what was waited for */
export async function eventually<T>(
  what: string,
  ask: () => Promise<T | undefined | false> | T | undefined | false,
): Promise<T> {
  const deadline = Date.now() + 30_000;
  for (;;) {
    const answer = await ask();
    if (answer !== undefined && answer !== false) return answer;
    if (Date.now() > deadline) throw new Error(`waited in vain for ${what}`);
    await new Promise((resolve) => setTimeout(resolve, 25));
  }
}
