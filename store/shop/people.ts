import { hash, verify } from '@node-rs/argon2';
import { person, type Person } from '../../contract/people/people.ts';
import { type Role } from '../../contract/values/role.ts';
import { Refusal } from '../../core/refusal.ts';
import type { Units } from '../../core/units/told-units.ts';
import type { Queryable } from '../database/database.ts';
import { recordOf } from '../database/rows.ts';

/** argon2id (2) with 19 MiB and two passes, after OWASP's advice of 2024. */
const how = { algorithm: 2, memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;
/** Compared with where there is nobody of the name, so that a guess takes the same time. */
const nobodysHash = hash('nobody has this password', how);

const columns = 'id, name, role, created_at, disabled_at, units';

export async function allPeople(database: Queryable): Promise<Person[]> {
  const { rows } = await database.query<Record<string, unknown>>(`select ${columns} from person order by lower(name)`);
  return rows.map((row) => recordOf(person, row));
}

/** Whether there is any account: then everybody signs in. */
export async function haveAccounts(database: Queryable): Promise<boolean> {
  const { rows } = await database.query<{ any: boolean }>('select exists (select from person) as any');
  return rows[0]?.any ?? false;
}

/** Somebody who may sign in, by number. */
export async function personById(database: Queryable, id: number): Promise<Person | undefined> {
  const { rows } = await database.query<Record<string, unknown>>(
    `select ${columns} from person where id = $1 and disabled_at is null`,
    [id],
  );
  return rows[0] && recordOf(person, rows[0]);
}

/** The account that a name means, open or shut; undefined where there is none. */
export async function idOfName(database: Queryable, name: string): Promise<number | undefined> {
  const { rows } = await database.query<{ id: number }>('select id from person where lower(name) = lower($1)', [name]);
  return rows[0]?.id;
}

/** @returns who has this name and password; undefined where nobody has */
export async function personWith(database: Queryable, name: string, password: string): Promise<Person | undefined> {
  const { rows } = await database.query<Record<string, unknown> & { password_hash: string }>(
    `select ${columns}, password_hash from person where lower(name) = lower($1) and disabled_at is null`,
    [name],
  );
  const [row] = rows;
  const right = await verify(row?.password_hash ?? (await nobodysHash), password).catch(() => false);
  return row && right ? recordOf(person, row) : undefined;
}

/** @throws Refusal where somebody has the name */
export async function addPerson(
  database: Queryable,
  { name, role, password }: { name: string; role: Role; password: string },
): Promise<Person> {
  const { rows } = await database.query<Record<string, unknown>>(
    `insert into person (name, role, password_hash) values ($1, $2, $3) on conflict do nothing returning ${columns}`,
    [name, role, await hash(password, how)],
  );
  if (!rows[0]) throw new Refusal(`There is an account called ${name} already.`);
  return recordOf(person, rows[0]);
}

/** @returns undefined where there is no such account */
export async function changePerson(
  database: Queryable,
  id: number,
  {
    role,
    password,
    disabled,
  }: { role?: Role | undefined; password?: string | undefined; disabled?: boolean | undefined },
): Promise<Person | undefined> {
  const { rows } = await database.query<Record<string, unknown>>(
    `update person set role = coalesce($2, role), password_hash = coalesce($3, password_hash),
       disabled_at = case when $4::boolean is null then disabled_at when $4 then coalesce(disabled_at, now()) end
     where id = $1 returning ${columns}`,
    [id, role, password === undefined ? null : await hash(password, how), disabled],
  );
  return rows[0] && recordOf(person, rows[0]);
}

/** What somebody is told quantities in from now on. */
export async function chooseUnits(database: Queryable, id: number, units: Units): Promise<void> {
  await database.query('update person set units = $2 where id = $1', [id, JSON.stringify(units)]);
}

/** Ends the sessions of somebody, but for one. */
export async function endSessions(database: Queryable, personId: number, but: string | null = null): Promise<void> {
  await database.query(`delete from session where sess ->> 'personId' = $1 and sid is distinct from $2`, [
    String(personId),
    but,
  ]);
}

/** What cookies are signed with. */
export async function sessionSecret(database: Queryable): Promise<string> {
  const { rows } = await database.query<{ value: string }>(`select value from server_secret where name = 'session'`);
  if (!rows[0]) throw new Error('The database holds no secret for sessions.');
  return rows[0].value;
}
