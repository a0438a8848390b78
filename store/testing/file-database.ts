import { afterAll, beforeAll } from '@jest/globals';
import { silentLog } from '../../contract/values/service-log.ts';
import { openDatabase, type Database } from '../database/database.ts';
import { freshDatabase, type TestDatabase } from './test-database.ts';

/** A database with nothing in it, open from a file's first test to its last. @returns it, once the tests run */
export function fileDatabase(): () => Database {
  let fresh: TestDatabase;
  let database: Database;
  beforeAll(async () => {
    fresh = await freshDatabase();
    database = openDatabase(fresh.url, silentLog);
  });
  afterAll(async () => {
    await database.end();
    await fresh.drop();
  });
  return () => database;
}
