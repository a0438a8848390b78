import { describe, expect, test } from '@jest/globals';
import { columnFields, entryKind, entryKinds, type EntryKind } from '../../contract/job/entries.ts';
import { columnOf } from '../database/rows.ts';
import { fileDatabase } from '../testing/file-database.ts';

/** What a migration must give the table of a short list: whoever forgets a part is told which. */
const database = fileDatabase();

const columnsOf = async (table: string) =>
  (
    await database().query<{ name: string }>(
      `select column_name as name from information_schema.columns where table_schema = 'public' and table_name = $1`,
      [table],
    )
  ).rows.map(({ name }) => name);

/** The functions that its triggers call. */
const triggersOf = async (table: string) =>
  (
    await database().query<{ calls: string }>(
      `select pg_proc.proname as calls from pg_trigger join pg_proc on pg_proc.oid = tgfoid
       where tgrelid = $1::regclass and not tgisinternal`,
      [table],
    )
  ).rows.map(({ calls }) => calls);

describe.each(Object.keys(entryKinds) as EntryKind[])('%s', (kind) => {
  const { of, table, order = 'id', amounts = [], onlyOne } = entryKind(kind);

  test('has a column for each of its fields, is counted, and can be taken away', async () => {
    const owner = { jobs: ['job_id'], vehicles: ['vehicle_id'], shop: [] }[of];
    const ordered = order.split(', ');
    const wanted = ['id', 'revision', 'removed_at', ...owner, ...ordered, ...columnFields(kind).map(columnOf)];
    const there = await columnsOf(table);
    expect(wanted.filter((column) => !there.includes(column))).toEqual([]);
    expect([...amounts, ...(onlyOne ? [onlyOne] : [])].filter((field) => !columnFields(kind).includes(field))).toEqual(
      [],
    );
  });

  test('counts its revisions, keeps its history, tells its changes, and stays as it is in a closed job where it says so', async () => {
    const calls = await triggersOf(table);
    const described = entryKind(kind);
    const wanted = [
      'count_revision',
      'keep_history',
      of === 'jobs' ? 'tell_job_changed' : 'tell_all_changed',
      ...(described.of === 'jobs' && described.whileClosed === 'refused' ? ['refuse_closed'] : []),
    ];
    const ofEveryList = /^(count_revision|keep_history|tell_.*|refuse_closed)$/;
    expect(calls.filter((call) => ofEveryList.test(call)).sort()).toEqual(wanted.sort());
  });
});
