-- What somebody without an account may look at: one kept report, or a job's Compare, until a day.

-- Up Migration

create table shared_link (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  -- The report; Compare where there is none.
  report_version_id bigint references report_version,
  -- Standard and units that Compare is shown with.
  view jsonb not null check (jsonb_typeof(view) = 'object'),
  -- SHA-256 of the key: whoever reads the database opens nothing with it.
  key_hash text not null unique check (length(key_hash) = 64),
  whom text not null default '',
  ends_at timestamptz not null,
  revision integer not null default 1,
  removed_at timestamptz,
  created_at timestamptz not null default now()
);
create index shared_link_job on shared_link (job_id);
create trigger shared_link_revision before update on shared_link for each row execute function count_revision();
create trigger shared_link_history after insert or update on shared_link for each row execute function keep_history();

-- Apart, so that looking at something is no change of it.
create table shared_link_opened (
  shared_link_id bigint primary key references shared_link,
  times integer not null default 1,
  last_at timestamptz not null default now()
);

-- Down Migration

drop table shared_link_opened, shared_link;
