import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { silentLog } from '../contract/values/service-log.ts';
import { openDatabase, type Database } from '../store/database/database.ts';
import { migrate } from '../store/database/migrate.ts';
import { allPeople, personWith } from '../store/shop/people.ts';
import { freshDatabase } from '../store/testing/test-database.ts';
import { accountCommand } from './account.ts';

let url: string;
let drop: () => Promise<void>;
let database: Database;
let said: string[];
const asked = async (...words: string[]) => {
  said = [];
  await accountCommand(url, words, (text) => said.push(text));
  return /signs in with (\S+)/.exec(said.join('\n'))?.[1] ?? '';
};
beforeEach(async () => {
  ({ url, drop } = await freshDatabase());
  await migrate(url);
  database = openDatabase(url, silentLog);
});
afterEach(async () => {
  await database.end();
  await drop();
});

test('an account is made, listed, and let in again with another password; its sessions end', async () => {
  await asked('list');
  expect(said.join()).toMatch(/There are no accounts/);
  await expect(asked('add', 'Vic', 'viewer')).rejects.toThrow(/first account is an owner/);
  const first = await asked('add', 'Ola Nordby', 'owner');
  expect(first).toMatch(/^([a-z2-9]{5}-){3}[a-z2-9]{5}$/);
  expect(await personWith(database, 'ola nordby', first)).toMatchObject({ name: 'Ola Nordby', role: 'owner' });
  const { id } = (await allPeople(database))[0]!;
  await database.query(`insert into session values ('a', $1, now() + interval '1 day')`, [
    JSON.stringify({ personId: id }),
  ]);
  const second = await asked('password', 'OLA NORDBY');
  expect(await personWith(database, 'Ola Nordby', first)).toBeUndefined();
  expect(await personWith(database, 'Ola Nordby', second)).toBeDefined();
  expect((await database.query('select from session')).rows).toHaveLength(0);
  await asked('list');
  expect(said).toEqual(['Ola Nordby  owner']);
});

test.each([
  [['password', 'Nobody'], /no account called Nobody; there are none/],
  [['add', 'Vic', 'king'], /A role is one of owner, operator, viewer/],
  [['add'], /Say "account list"/],
  [['remove', 'Vic'], /Say "account list"/],
] as const)('%j is refused', async (words, sentence) => {
  await expect(asked(...words)).rejects.toThrow(sentence);
});
