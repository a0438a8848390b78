import pg from 'pg';
import type { Queryable } from './database.ts';

/**
 * Two roles: the owner makes and changes the schema, the application works in
 * it. What is recorded, and what the history says, the application may add to
 * and never change; it cannot switch off the rules that refuse it.
 */

/** What the application may not do, table by table, beyond making and dropping them. */
const never = {
  run: ['delete'],
  run_chunk: ['update'],
  run_channel: ['update', 'delete'],
  history: ['update', 'delete'],
  migration: ['insert', 'update', 'delete'],
} as const;

/** Our own, and the queue's. */
const schemas = ['public', 'pgboss'];

const named = (name: string) => pg.escapeIdentifier(name);

/**
 * Lets a role work in the schema, and no more.
 * @param client of the owner, or of an administrator
 */
export async function letWork(client: Queryable, role: string): Promise<void> {
  const to = named(role);
  for (const schema of schemas) {
    await client.query(`grant usage on schema ${schema} to ${to}`);
    await client.query(`revoke create on schema ${schema} from public, ${to}`);
    await client.query(`grant select, insert, update, delete on all tables in schema ${schema} to ${to}`);
    await client.query(`grant usage on all sequences in schema ${schema} to ${to}`);
  }
  for (const [table, rights] of Object.entries(never))
    await client.query(`revoke ${rights.join(', ')} on ${named(table)} from ${to}`);
}

/**
 * Gives everything in the schema to a role, whoever made it: an administrator before there were roles, or a restore.
 * @param client of an administrator, in the database
 */
export async function giveTo(client: Queryable, role: string): Promise<void> {
  const { rows } = await client.query<{ what: string }>(
    // What belongs to a table follows it; what an extension made is its own.
    `with ours as (select oid, nspname, nspowner from pg_namespace where nspname = any($2))
     select format('%s %I.%I', case relkind when 'S' then 'sequence' when 'v' then 'view' else 'table' end, nspname, relname) as what
       from pg_class join ours on ours.oid = relnamespace where pg_get_userbyid(relowner) <> $1 and (relkind in ('r', 'p', 'v')
        or (relkind = 'S' and not exists (select 1 from pg_depend where objid = pg_class.oid and deptype in ('a', 'i'))))
     union all
     select format('routine %s', pg_proc.oid::regprocedure)
       from pg_proc join ours on ours.oid = pronamespace where pg_get_userbyid(proowner) <> $1
        and not exists (select 1 from pg_depend where classid = 'pg_proc'::regclass and objid = pg_proc.oid and deptype = 'e')
     union all
     select format('type %I.%I', nspname, typname)
       from pg_type join ours on ours.oid = typnamespace where typtype = 'e' and pg_get_userbyid(typowner) <> $1
     union all
     select format('schema %I', nspname) from ours where pg_get_userbyid(nspowner) <> $1`,
    [role, schemas],
  );
  for (const { what } of rows) await client.query(`alter ${what} owner to ${named(role)}`);
}

/**
 * Makes a role that may sign in and nothing else, or gives it another password.
 * @param client of an administrator
 */
export async function ensureRole(client: Queryable, role: string, password: string): Promise<void> {
  const { rowCount } = await client.query('select 1 from pg_roles where rolname = $1', [role]);
  // Two at once: whoever is second finds it made.
  if (rowCount === 0)
    await client.query(`create role ${named(role)}`).catch((error: { code?: string }) => {
      if (error.code !== '42710' && error.code !== '23505') throw error;
    });
  const limits = 'login nosuperuser nocreatedb nocreaterole noreplication nobypassrls';
  await client.query(`alter role ${named(role)} with ${limits} password ${pg.escapeLiteral(password)}`);
}
