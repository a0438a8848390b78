-- Up Migration

create table job (
  id bigint generated always as identity primary key,
  vehicle text not null check (vehicle <> ''),
  owner text not null default '',
  question text not null default '',
  gear text,
  -- Letters given out so far.
  setups_lettered integer not null default 0,
  created_at timestamptz not null default now()
);

create table setup (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  -- Order in the job from 0; the letter follows from it.
  position integer not null check (position >= 0),
  parent_id bigint,
  change text not null check (change <> ''),
  items jsonb not null default '[]' check (jsonb_typeof(items) = 'array'),
  -- Numbers given out so far; a number is never used twice.
  runs_numbered integer not null default 0,
  created_at timestamptz not null default now(),
  unique (job_id, position),
  unique (id, job_id),
  foreign key (parent_id, job_id) references setup (id, job_id),
  check (parent_id <> id)
);

create table run (
  id bigint generated always as identity primary key,
  job_id bigint references job,
  setup_id bigint,
  number integer check (number > 0),
  former_labels text[] not null default '{}',
  kind text not null default 'power' check (kind in ('power', 'conditioning')),
  state text not null check (state in ('recording', 'sealed', 'interrupted')),
  gear text,
  started_at timestamptz not null,
  ended_at timestamptz,
  set_aside_reason text check (set_aside_reason <> ''),
  note text not null default '',
  dyno jsonb not null,
  engine_to_drum_ratio double precision check (engine_to_drum_ratio > 0),
  air jsonb,
  air_taken_at timestamptz,
  start_temperatures jsonb not null default '{}',
  channels jsonb not null check (jsonb_typeof(channels) = 'array'),
  samples integer not null default 0 check (samples >= 0),
  source text not null,
  remarks jsonb not null default '[]' check (jsonb_typeof(remarks) = 'array'),
  -- The recorder process that is writing it; see store/recorder-lock.ts.
  recorder_id integer,
  foreign key (setup_id, job_id) references setup (id, job_id),
  unique (setup_id, number),
  check ((job_id is null) = (setup_id is null)),
  check ((setup_id is null) = (number is null)),
  check (state = 'recording' or ended_at is not null)
);
create index run_of_job on run (job_id, id);
create index run_unclaimed on run (id) where job_id is null;
create index run_unsealed on run (id) where state = 'recording';

-- While recording: what arrived, as it arrived. float64 columns: time, then each channel.
create table run_chunk (
  run_id bigint not null references run,
  sequence integer not null check (sequence >= 0),
  samples integer not null check (samples > 0),
  data bytea not null,
  primary key (run_id, sequence)
);

-- Afterwards: one column of bytes a channel, float64 little-endian; position 0 is time.
create table run_channel (
  run_id bigint not null references run,
  position integer not null check (position >= 0),
  name text not null,
  unit text not null,
  data bytea not null,
  primary key (run_id, position),
  unique (run_id, name)
);

do $$
begin
  alter table run_channel alter column data set compression lz4;
exception when others then
  raise notice 'this PostgreSQL has no lz4; samples use its usual compression';
end
$$;

-- Raw samples are the only truth: nothing changes them.
create function refuse_change() returns trigger language plpgsql as $$
begin
  raise exception 'recorded samples are never altered';
end
$$;
create trigger run_channel_is_final before update or delete on run_channel
  for each row execute function refuse_change();
create trigger run_chunk_is_append_only before update on run_chunk
  for each row execute function refuse_change();

create function refuse_loss() returns trigger language plpgsql as $$
begin
  if (select state from run where id = old.run_id) = 'recording' then
    raise exception 'samples of a run being recorded cannot be removed';
  end if;
  return old;
end
$$;
create trigger run_chunk_is_kept before delete on run_chunk
  for each row execute function refuse_loss();
create trigger run_is_kept before delete on run
  for each row execute function refuse_change();

-- What is on the dyno now.
create table bay (
  id integer primary key default 1 check (id = 1),
  job_id bigint,
  setup_id bigint,
  foreign key (setup_id, job_id) references setup (id, job_id)
);
insert into bay default values;

-- Every server process hears of every change.
create function tell_job_changed() returns trigger language plpgsql as $$
begin
  perform pg_notify('suvok_changed', coalesce((to_jsonb(new) ->> case tg_table_name when 'job' then 'id' else 'job_id' end), ''));
  return null;
end
$$;
create trigger job_changed after insert or update on job for each row execute function tell_job_changed();
create trigger setup_changed after insert or update on setup for each row execute function tell_job_changed();
create trigger run_changed after insert or update on run for each row execute function tell_job_changed();

-- Down Migration

drop table bay, run_channel, run_chunk, run, setup, job;
drop function refuse_change, refuse_loss, tell_job_changed;
