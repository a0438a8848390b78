import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { migrate } from './migrate.ts';
import { ensureRole, giveTo, letWork } from './roles.ts';
import { asApplication, freshDatabase } from '../testing/test-database.ts';

let url: string;
let drop: () => Promise<void>;
let admin: pg.Client;
beforeEach(async () => {
  ({ url, drop } = await freshDatabase());
  admin = new pg.Client({ connectionString: url });
  await admin.connect();
});
afterEach(async () => {
  await admin.end();
  await drop();
});

const as = (role: string, password: string) => {
  const address = new URL(url);
  [address.username, address.password] = [role, password];
  return address.toString();
};

test('a database that an administrator made is given to its owner, who then changes its schema and administers nothing', async () => {
  await migrate(url);
  const owner = `owner_${randomUUID().slice(0, 8)}`;
  await ensureRole(admin, owner, 'one');
  // Another password at the next start, and all of it once more: nothing is left to do.
  await ensureRole(admin, owner, 'two');
  await giveTo(admin, owner);
  await giveTo(admin, owner);
  const { rows } = await admin.query<{
    owners: string[];
  }>(`select array_agg(distinct pg_get_userbyid(o)::text) as owners from (
    select relowner as o from pg_class where relnamespace = 'public'::regnamespace
    union select proowner from pg_proc where pronamespace = 'public'::regnamespace
      and not exists (select from pg_depend where classid = 'pg_proc'::regclass and objid = pg_proc.oid and deptype = 'e')) as found`);
  expect(rows[0]!.owners).toEqual([owner]);
  const client = new pg.Client({ connectionString: as(owner, 'two') });
  await client.connect();
  await client.query('alter table job add column more text');
  await client.query(`delete from migration where name = (select max(name) from migration)`);
  await expect(client.query('create role another')).rejects.toThrow(/permission denied/);
  await expect(client.query('create database another')).rejects.toThrow(/permission denied/);
  await client.end();
  await expect(new pg.Client({ connectionString: as(owner, 'one') }).connect()).rejects.toThrow(/password/);
  await admin.query(`drop owned by ${owner} cascade`);
  await admin.query(`drop role ${owner}`);
});

test('the application brings no schema up to date and says who does; with one that is, it needs no more than to read', async () => {
  await migrate(url);
  const application = await asApplication(url);
  expect(await migrate(application)).toEqual([]);
  await admin.query(`delete from migration where name = (select max(name) from migration)`);
  await expect(migrate(application)).rejects.toThrow(/older version.*Start once with DATABASE_OWNER_URL/);
});

test('what a later migration makes is let to the application at the next start', async () => {
  await migrate(url);
  const application = new pg.Client({ connectionString: await asApplication(url) });
  await application.connect();
  await admin.query('create table later (id bigserial primary key)');
  await expect(application.query('insert into later default values')).rejects.toThrow(/permission denied/);
  await letWork(admin, 'test_application');
  await application.query('insert into later default values');
  await application.end();
});
