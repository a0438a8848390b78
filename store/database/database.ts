import pg from 'pg';
import type { Log } from '../../contract/values/service-log.ts';

/** Rows come with numbers where PostgreSQL counts in bigint: identifiers here stay far below 2^53. */
pg.types.setTypeParser(pg.types.builtins.INT8, Number);
/** Lists of them likewise; 1016 is PostgreSQL's number for bigint[]. */
const bigintList = 1016 as (typeof pg.types.builtins)['INT8'];
const textList = pg.types.getTypeParser(bigintList) as (text: string) => string[];
pg.types.setTypeParser(bigintList, (text: string) => textList(text).map(Number));

export type Database = pg.Pool;
/** A pool or one of its clients inside a transaction. */
export type Queryable = Pick<pg.Pool, 'query'>;

/** A statement that takes longer than this is worth knowing of, ms. */
const slowMs = 300;

/** How long a statement, a lock and an idle transaction may take, ms: nobody waits for ever for somebody who hangs. */
const limitsMs = { statement: 60_000, lock: 15_000, idleTransaction: 60_000, connect: 10_000 };

/**
 * Opens a pool on a database. A broken idle connection is written down, not fatal; so is a slow statement.
 * @param options how many connections, and how long an answer may take, ms
 */
export function openDatabase(
  url: string,
  log: Log,
  { connections = 8, answerMs = limitsMs.statement }: { connections?: number; answerMs?: number } = {},
): Database {
  const pool = new pg.Pool({
    connectionString: url,
    max: connections,
    connectionTimeoutMillis: Math.min(answerMs, limitsMs.connect),
    statement_timeout: answerMs,
    lock_timeout: Math.min(answerMs, limitsMs.lock),
    idle_in_transaction_session_timeout: limitsMs.idleTransaction,
    // A server that has gone without a word answers nothing at all: then this side gives up.
    query_timeout: answerMs + 2000,
    keepAlive: true,
  });
  pool.on('error', (error) => log.error({ err: error }, 'a connection to the database broke'));
  pool.on('connect', (client) => timeStatements(client, log));
  return pool;
}

/** Times every statement of a connection, whether its answer is awaited or called back with, as the pool does. */
function timeStatements(client: pg.PoolClient, log: Log): void {
  const query = client.query.bind(client) as (...words: unknown[]) => unknown;
  client.query = ((...words: unknown[]) => {
    const began = performance.now();
    const tell = () => {
      const ms = Math.round(performance.now() - began);
      const [statement] = words;
      if (ms > slowMs && typeof statement === 'string')
        log.warn({ ms, statement: statement.replaceAll(/\s+/g, ' ').slice(0, 120) }, 'slow statement');
    };
    const last = words.at(-1);
    if (typeof last === 'function') {
      const callback = last as (...answer: unknown[]) => void;
      return query(...words.slice(0, -1), (...answer: unknown[]) => {
        tell();
        callback(...answer);
      });
    }
    const answer = query(...words);
    if (answer instanceof Promise) answer.then(tell, tell);
    return answer;
  }) as typeof client.query;
}

/** Does work on one connection of its own, without a pool: an administrator's, or before there is a schema. */
export async function connected<T>(url: string, work: (client: pg.Client) => Promise<T>): Promise<T> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
}

/** Runs work in one transaction: all of it happens, or none. */
export async function inTransaction<T>(database: Database, work: (client: Queryable) => Promise<T>): Promise<T> {
  return withClient(database, async (client) => {
    try {
      await client.query('begin');
      const result = await work(client);
      await client.query('commit');
      return result;
    } catch (error) {
      await client.query('rollback').catch(() => undefined);
      throw error;
    }
  });
}

/**
 * Does work while a lock is held that ends with this process or its connection, whatever happens to them.
 * @param name of what only one at a time may do
 * @returns false where somebody else holds it: nothing was done
 */
export async function holdingLock(database: Database, name: string, work: () => Promise<void>): Promise<boolean> {
  const client = await database.connect();
  // A connection that breaks has let go of the lock; the work itself asks others.
  client.on('error', () => undefined);
  try {
    const { rows } = await client.query<{ held: boolean }>(
      'select pg_try_advisory_lock(hashtextextended($1, 0)) as held',
      [name],
    );
    if (!rows[0]?.held) return false;
    await work();
    return true;
  } finally {
    // With its session the lock ends, though an unlocking were never heard.
    client.release(true);
  }
}

/**
 * Does work on one connection of the pool. A connection that breaks meanwhile
 * fails the query it was asked, and is not used again; without a listener its
 * own error would end the process.
 */
export async function withClient<T>(database: Database, work: (client: Queryable) => Promise<T>): Promise<T> {
  const client = await database.connect();
  let broken: Error | undefined;
  const onError = (error: Error) => (broken = error);
  client.on('error', onError);
  try {
    return await work(client);
  } finally {
    client.off('error', onError);
    client.release(broken);
  }
}
