import pg from 'pg';

/** Rows come with numbers where PostgreSQL counts in bigint: identifiers here stay far below 2^53. */
pg.types.setTypeParser(pg.types.builtins.INT8, Number);
/** Lists of them likewise; 1016 is PostgreSQL's number for bigint[]. */
const bigintList = 1016 as (typeof pg.types.builtins)['INT8'];
const textList = pg.types.getTypeParser(bigintList) as (text: string) => string[];
pg.types.setTypeParser(bigintList, (text: string) => textList(text).map(Number));

export type Database = pg.Pool;
/** A pool or one of its clients inside a transaction. */
export type Queryable = Pick<pg.Pool, 'query'>;

/** Opens a pool on a database. A broken idle connection is reported, not fatal. */
export function openDatabase(url: string, onProblem: (error: Error) => void): Database {
  const pool = new pg.Pool({ connectionString: url, max: 8 });
  pool.on('error', onProblem);
  return pool;
}

/** Runs work in one transaction: all of it happens, or none. */
export async function inTransaction<T>(database: Database, work: (client: Queryable) => Promise<T>): Promise<T> {
  const client = await database.connect();
  try {
    await client.query('begin');
    const result = await work(client);
    await client.query('commit');
    return result;
  } catch (error) {
    await client.query('rollback').catch(() => undefined);
    throw error;
  } finally {
    client.release();
  }
}
