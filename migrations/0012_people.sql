-- Up Migration

-- Who works with Suvok. Without any it opens to whoever can reach it, on this machine alone.
create table person (
  id bigint generated always as identity primary key,
  name text not null check (name <> '' and length(name) <= 60),
  role text not null check (role in ('owner', 'operator', 'viewer')),
  -- argon2id, with its own salt and parameters.
  password_hash text not null,
  created_at timestamptz not null default now(),
  -- Nobody is removed: what they did carries their name.
  disabled_at timestamptz
);
create unique index person_name on person (lower(name));

-- Somebody must be able to let others in.
create function keep_an_owner() returns trigger language plpgsql as $$
begin
  if exists (select from person)
    and not exists (select from person where disabled_at is null and role = 'owner') then
    raise exception 'the last owner stays' using errcode = 'SV007';
  end if;
  return null;
end
$$;
create constraint trigger person_owner after insert or update on person deferrable initially deferred
  for each row execute function keep_an_owner();

-- In the form of connect-pg-simple.
create table session (
  sid text primary key,
  sess json not null,
  expire timestamptz not null
);
create index session_expire on session (expire);
create index session_person on session ((sess ->> 'personId'));

-- What cookies are signed with, one for all servers on this database.
create table server_secret (name text primary key, value text not null);
insert into server_secret values ('session', gen_random_uuid()::text || gen_random_uuid()::text);

-- Who did an act; null while there were no accounts, and for what Suvok does by itself.
alter table history add column person_id bigint references person
  default nullif(current_setting('suvok.person', true), '')::bigint;

-- Down Migration

alter table history drop column person_id;
drop table server_secret, session, person;
drop function keep_an_owner;
