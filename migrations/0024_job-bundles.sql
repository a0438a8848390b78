-- A job can be carried to another shop: it and its runs are known again wherever they are.

-- Up Migration

alter table job add column key uuid not null default gen_random_uuid() unique;
update run set key = gen_random_uuid() where key is null;
alter table run alter column key set default gen_random_uuid(), alter column key set not null;

-- A key is no change of anybody's.
create or replace function bookkeeping() returns text[] language sql immutable as $$
  select array['revision', 'setups_lettered', 'runs_numbered', 'last_run_at', 'recorder_id', 'samples', 'created_at', 'key'];
$$;

-- What the shop that a job came from knew of its dyno: the job's figures rest on it, and on nothing of this shop's.
create table carried_history (
  job_id bigint not null references job,
  device text not null,
  history jsonb not null check (jsonb_typeof(history) = 'object'),
  primary key (job_id, device)
);

-- Down Migration

drop table carried_history;
create or replace function bookkeeping() returns text[] language sql immutable as $$
  select array['revision', 'setups_lettered', 'runs_numbered', 'last_run_at', 'recorder_id', 'samples', 'created_at'];
$$;
alter table run alter column key drop not null, alter column key drop default;
alter table job drop column key;
