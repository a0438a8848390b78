-- Up Migration

-- Everything that a dyno is used for beside power runs.
alter table run drop constraint run_kind_check;
alter table run add constraint run_kind_check check (kind in ('power', 'conditioning', 'step', 'coast-down', 'check'));

-- What was planned of the run, and which instrument made it.
alter table run
  add column device text not null default '',
  add column plan jsonb,
  -- Loggers that recorded beside the dyno, each on its own clock; source 1, 2 … of its samples.
  add column logs jsonb not null default '[]' check (jsonb_typeof(logs) = 'array');
create index run_checks on run (device, started_at) where kind = 'check';

-- Samples by source: 0 is the dyno's own.
alter table run_chunk add column source integer not null default 0 check (source >= 0);
alter table run_chunk drop constraint run_chunk_pkey, add primary key (run_id, source, sequence);
alter table run_channel add column source integer not null default 0 check (source >= 0);
alter table run_channel drop constraint run_channel_pkey, add primary key (run_id, source, position);
alter table run_channel drop constraint run_channel_run_id_name_key, add unique (run_id, source, name);

-- What is to be done next on the dyno.
alter table bay add column plan jsonb;

-- What the shop has set of an instrument: its channels' names, probe, ratio, zero.
create table device_setting (
  device text primary key check (device <> ''),
  settings jsonb not null,
  changed_at timestamptz not null default now()
);

-- A named look at the comparison: its address.
create table saved_view (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  name text not null check (name <> ''),
  address text not null check (address like '?%'),
  revision integer not null default 1,
  removed_at timestamptz,
  created_at timestamptz not null default now()
);
create index views_of_job on saved_view (job_id);
create trigger saved_view_revision before update on saved_view for each row execute function count_revision();
create trigger saved_view_history after insert or update on saved_view for each row execute function keep_history();
create trigger saved_view_changed after insert or update on saved_view for each row execute function tell_job_changed();

-- Down Migration

drop table saved_view;

drop table device_setting;
alter table bay drop column plan;
-- Logs of a schema that knows none cannot be kept in it.
alter table run_channel disable trigger run_channel_is_final;
delete from run_channel where source > 0;
alter table run_channel enable trigger run_channel_is_final;
delete from run_chunk where source > 0;
alter table run_channel drop constraint run_channel_run_id_source_name_key, drop constraint run_channel_pkey;
alter table run_channel drop column source, add primary key (run_id, position), add unique (run_id, name);
alter table run_chunk drop constraint run_chunk_pkey;
alter table run_chunk drop column source, add primary key (run_id, sequence);
drop index run_checks;
alter table run drop column logs, drop column plan, drop column device;
update run set kind = 'conditioning' where kind not in ('power', 'conditioning');
alter table run drop constraint run_kind_check;
alter table run add constraint run_kind_check check (kind in ('power', 'conditioning'));
