-- A folder on this machine in which a dyno or a logger drops its files: each is taken once, when it is complete.

-- Up Migration

create table watched_folder (
  sole boolean primary key default true check (sole),
  path text not null check (path <> ''),
  chosen_at timestamptz not null default now()
);

create table watched_file (
  id bigint generated always as identity primary key,
  -- What is in it: the same file under another name is not taken again.
  sha256 text not null unique,
  name text not null,
  bytes bigint not null,
  modified_at timestamptz not null,
  taken_at timestamptz not null default now(),
  outcome text not null check (outcome in ('reading', 'run', 'log', 'refused')),
  -- The runs that it became, or joined.
  run_ids jsonb not null default '[]',
  -- Why it was refused, or what else is to be said.
  words text not null default ''
);
create index watched_files_by_time on watched_file (taken_at desc);

-- Down Migration

drop table watched_file;
drop table watched_folder;
