import { expect, test } from '@jest/globals';
import { subjects, touches } from '../../contract/job/changes.ts';
import { fileDatabase } from '../testing/file-database.ts';

const database = fileDatabase();

test('every table whose changes are told or kept in the history says what they touch, and every subject is touched by one', async () => {
  const { rows } = await database().query<{ name: string }>(
    `select distinct tgrelid::regclass::text as name from pg_trigger join pg_proc on pg_proc.oid = tgfoid
     where not tgisinternal and (proname like 'tell\\_%' or proname = 'keep_history')`,
  );
  const told = rows.map(({ name }) => name);
  expect(told.length).toBeGreaterThan(25);
  expect(Object.keys(touches).sort()).toEqual(told.sort());
  expect(new Set(Object.values(touches).flat())).toEqual(new Set(subjects));
});
