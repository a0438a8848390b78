-- Up Migration

-- Whose car it is, and the car: they come back, so they outlive their jobs.
create table owner (
  id bigint generated always as identity primary key,
  name text not null check (name <> ''),
  contact text not null default '',
  note text not null default '',
  revision integer not null default 1,
  removed_at timestamptz,
  created_at timestamptz not null default now()
);

create table vehicle (
  id bigint generated always as identity primary key,
  owner_id bigint references owner,
  name text not null check (name <> ''),
  plate text not null default '',
  engine text not null default '',
  ignition text check (ignition in ('spark', 'compression')),
  induction text check (induction in ('none', 'turbo', 'supercharger', 'both')),
  fuel_system text not null default '',
  gearbox text not null default '',
  driven_axle text check (driven_axle in ('front', 'rear', 'all')),
  tyres text not null default '',
  tank_litres double precision check (tank_litres > 0),
  gears jsonb not null default '[]' check (jsonb_typeof(gears) = 'array'),
  final_drive double precision check (final_drive > 0),
  factory_kw double precision check (factory_kw > 0),
  factory_nm double precision check (factory_nm > 0),
  note text not null default '',
  revision integer not null default 1,
  removed_at timestamptz,
  created_at timestamptz not null default now()
);
create index vehicle_of_owner on vehicle (owner_id);

create table vehicle_part (
  id bigint generated always as identity primary key,
  vehicle_id bigint not null references vehicle,
  name text not null check (name <> ''),
  knowledge text not null default 'known' check (knowledge in ('known', 'believed', 'unknown')),
  note text not null default '',
  revision integer not null default 1,
  removed_at timestamptz,
  created_at timestamptz not null default now()
);
create index part_of_vehicle on vehicle_part (vehicle_id);

alter table job
  add column vehicle_id bigint references vehicle,
  add column state text not null default 'open' check (state in ('open', 'paused', 'closed')),
  add column paused_why text not null default '',
  add column use text not null default '',
  add column target text not null default '',
  add column not_wanted text not null default '',
  add column claimed_value double precision check (claimed_value > 0),
  add column claimed_unit text not null default 'kW' check (claimed_unit in ('kW', 'hp', 'PS')),
  add column claimed_scale text check (claimed_scale in ('crank', 'wheels')),
  add column claimed_source text not null default '',
  add column deliverables text not null default '',
  add column gentler_tune boolean not null default false,
  add column dyno_kind text check (dyno_kind in ('inertia-roller', 'loaded-roller', 'hub')),
  add column untested text not null default '',
  add column best_run_id bigint references run,
  add column delivered_setup_id bigint,
  add column delivered_note text not null default '',
  add column closed_at timestamptz,
  add column last_run_at timestamptz,
  add column revision integer not null default 1,
  add foreign key (delivered_setup_id, id) references setup (id, job_id),
  add check ((state = 'closed') = (closed_at is not null));

-- Jobs so far named their vehicle and owner in words.
insert into owner (name) select distinct owner from job where owner <> '';
insert into vehicle (name, owner_id)
  select distinct job.vehicle, owner.id from job left join owner on owner.name = job.owner;
update job set vehicle_id = (
  select vehicle.id from vehicle left join owner on owner.id = vehicle.owner_id
  where vehicle.name = job.vehicle and coalesce(owner.name, '') = job.owner
), last_run_at = (select max(started_at) from run where run.job_id = job.id);
alter table job alter column vehicle_id set not null, drop column vehicle, drop column owner;
create index job_of_vehicle on job (vehicle_id);
create index job_by_day on job ((coalesce(last_run_at, created_at)) desc, id desc);

create table band (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  name text not null check (name <> ''),
  from_rpm integer not null check (from_rpm > 0),
  to_rpm integer not null,
  revision integer not null default 1,
  removed_at timestamptz,
  created_at timestamptz not null default now(),
  check (to_rpm > from_rpm)
);
create index band_of_job on band (job_id);

create table job_limit (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  quantity text not null check (quantity <> ''),
  value double precision not null,
  -- Torque and power belong to a scale: the crank's, or this dyno's wheel figure.
  scale text check (scale in ('crank', 'wheels')),
  reason text not null default '',
  source text not null default 'owner' check (source in ('owner', 'maker', 'builder', 'us')),
  revision integer not null default 1,
  removed_at timestamptz,
  created_at timestamptz not null default now(),
  check (quantity not in ('torque', 'power') or scale is not null)
);
create index limit_of_job on job_limit (job_id);

create table inspection (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  key text not null check (key <> ''),
  outcome text not null check (outcome in ('open', 'ok', 'fail')),
  note text not null default '',
  measured double precision,
  revision integer not null default 1,
  removed_at timestamptz,
  created_at timestamptz not null default now(),
  unique (job_id, key)
);

create table fuel_entry (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  kind text not null check (kind in ('arrived', 'drained', 'added', 'measured')),
  at timestamptz not null default now(),
  litres double precision check (litres >= 0),
  ethanol_pct double precision check (ethanol_pct between 0 and 100),
  name text not null default '',
  note text not null default '',
  revision integer not null default 1,
  removed_at timestamptz,
  created_at timestamptz not null default now(),
  check (kind <> 'measured' or ethanol_pct is not null)
);
create index fuel_of_job on fuel_entry (job_id, at);

create table suspicion (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  cause text not null check (cause <> ''),
  test text not null default '',
  outcome text not null default '',
  state text not null default 'open' check (state in ('open', 'confirmed', 'ruled out')),
  revision integer not null default 1,
  removed_at timestamptz,
  created_at timestamptz not null default now()
);
create index suspicion_of_job on suspicion (job_id);

create table suspicion_run (
  suspicion_id bigint not null references suspicion,
  run_id bigint not null references run,
  primary key (suspicion_id, run_id)
);

-- A line written anywhere, at its time.
create table note (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  text text not null check (text <> ''),
  at timestamptz not null default now(),
  revision integer not null default 1,
  removed_at timestamptz,
  created_at timestamptz not null default now()
);
create index note_of_job on note (job_id, at);

create table photo (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  caption text not null default '',
  mime text not null check (mime in ('image/jpeg', 'image/png', 'image/webp')),
  at timestamptz not null default now(),
  revision integer not null default 1,
  removed_at timestamptz,
  created_at timestamptz not null default now()
);
create index photo_of_job on photo (job_id, at);
create table photo_content (
  photo_id bigint primary key references photo,
  content bytea not null
);

-- Opaque, and known by what is in them: one row for one content, whatever it is called.
create table tune_file (
  id bigint generated always as identity primary key,
  sha256 text not null unique check (sha256 ~ '^[0-9a-f]{64}$'),
  bytes integer not null check (bytes > 0),
  content bytea not null,
  created_at timestamptz not null default now()
);

alter table setup
  add column revision integer not null default 1,
  add column removed_at timestamptz,
  -- Mean power over a range, against the parent; locked at the first run.
  add column prediction_kw double precision,
  add column prediction_from_rpm integer check (prediction_from_rpm > 0),
  add column prediction_to_rpm integer,
  add column prediction_why text not null default '',
  add column decision text check (decision in ('keep', 'go back', 'try further')),
  add column decision_why text not null default '',
  add column decided_at timestamptz,
  add check ((prediction_from_rpm is null) = (prediction_to_rpm is null)),
  add check (prediction_to_rpm > prediction_from_rpm),
  add check ((decision is null) = (decided_at is null));

-- Numeric items were written in one form a kind; now all have `by` or `to`.
update setup set items = (
  select coalesce(jsonb_agg(case
    when item ? 'deltaDeg' then (item - 'deltaDeg') || jsonb_build_object('by', item -> 'deltaDeg')
    when item ? 'deltaMm' then (item - 'deltaMm') || jsonb_build_object('by', item -> 'deltaMm')
    else item end), '[]')
  from jsonb_array_elements(items) as item
);

-- A change in words is an item too, so that each thing counts; a step without items goes back.
update setup set items = jsonb_build_array(jsonb_build_object('kind', 'words', 'name', change))
  where items = '[]' and parent_id is not null;

create table setup_tune_file (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  setup_id bigint not null,
  tune_file_id bigint not null references tune_file,
  name text not null check (name <> ''),
  author text not null default '',
  note text not null default '',
  revision integer not null default 1,
  removed_at timestamptz,
  created_at timestamptz not null default now(),
  foreign key (setup_id, job_id) references setup (id, job_id)
);
create index tune_files_of_job on setup_tune_file (job_id);
create index setups_of_tune_file on setup_tune_file (tune_file_id);

-- A frozen baseline is a list of runs, never figures; replacing it makes the next version.
create table baseline (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  setup_id bigint not null,
  version integer not null check (version > 0),
  why text not null default '',
  created_at timestamptz not null default now(),
  unique (job_id, version),
  foreign key (setup_id, job_id) references setup (id, job_id)
);
create table baseline_run (
  baseline_id bigint not null references baseline,
  run_id bigint not null references run,
  primary key (baseline_id, run_id)
);

-- What was in the tank when the run began: the ledger's state then, kept with the run.
alter table run add column fuel jsonb;
create index run_noted on run (job_id) where note <> '';

-- Every change of what people said: who undoes it, and what figures depend on, is read from here.
create table history (
  id bigint generated always as identity primary key,
  -- All rows of one act carry its number, and an act is undone as a whole.
  act bigint not null default (pg_current_xact_id()::text)::bigint,
  at timestamptz not null default now(),
  subject text not null,
  row_id bigint not null,
  job_id bigint,
  vehicle_id bigint,
  -- Only what changed; null before an addition.
  before jsonb,
  after jsonb not null,
  revision integer not null
);
create index history_of_job on history (job_id, id);
create index history_of_act on history (act);
create index history_of_row on history (subject, row_id, revision);

create function bookkeeping() returns text[] language sql immutable as $$
  select array['revision', 'setups_lettered', 'runs_numbered', 'last_run_at', 'recorder_id', 'samples', 'created_at'];
$$;

create function count_revision() returns trigger language plpgsql as $$
begin
  if (to_jsonb(new) - bookkeeping()) is distinct from (to_jsonb(old) - bookkeeping()) then
    new.revision := old.revision + 1;
  end if;
  return new;
end
$$;

create function keep_history() returns trigger language plpgsql as $$
declare
  now_row jsonb := to_jsonb(new) - bookkeeping();
  old_row jsonb;
  changed_before jsonb;
  changed_after jsonb;
begin
  if tg_op = 'INSERT' then
    changed_after := jsonb_strip_nulls(now_row);
  else
    old_row := to_jsonb(old) - bookkeeping();
    select jsonb_object_agg(key, old_row -> key), jsonb_object_agg(key, value)
      into changed_before, changed_after
      from jsonb_each(now_row) where value is distinct from old_row -> key;
    if changed_after is null then
      return null;
    end if;
  end if;
  insert into history (subject, row_id, job_id, vehicle_id, before, after, revision)
  values (
    tg_table_name,
    new.id,
    case when tg_table_name = 'job' then new.id else (now_row ->> 'job_id')::bigint end,
    case when tg_table_name = 'vehicle' then new.id else (now_row ->> 'vehicle_id')::bigint end,
    changed_before,
    changed_after,
    coalesce((to_jsonb(new) ->> 'revision')::integer, 1)
  );
  return null;
end
$$;

do $$
declare
  subject text;
begin
  foreach subject in array array['owner', 'vehicle', 'vehicle_part', 'job', 'band', 'job_limit', 'inspection',
    'fuel_entry', 'suspicion', 'note', 'photo', 'setup', 'setup_tune_file'] loop
    execute format('create trigger %I before update on %I for each row execute function count_revision()', subject || '_revision', subject);
    execute format('create trigger %I after insert or update on %I for each row execute function keep_history()', subject || '_history', subject);
  end loop;
  foreach subject in array array['band', 'job_limit', 'inspection', 'fuel_entry', 'suspicion', 'note', 'photo',
    'setup_tune_file', 'baseline'] loop
    execute format('create trigger %I after insert or update on %I for each row execute function tell_job_changed()', subject || '_changed', subject);
  end loop;
end
$$;
create trigger baseline_history after insert on baseline for each row execute function keep_history();

-- Of a run, what people say of it; its beginning and end tell themselves.
create trigger run_history after update of set_aside_reason, note, kind, gear, setup_id on run
  for each row when (old.state = 'sealed' or old.state = 'interrupted') execute function keep_history();

create function tell_all_changed() returns trigger language plpgsql as $$
begin
  perform pg_notify('suvok_changed', '');
  return null;
end
$$;
create trigger owner_changed after insert or update on owner for each row execute function tell_all_changed();
create trigger vehicle_changed after insert or update on vehicle for each row execute function tell_all_changed();
create trigger part_changed after insert or update on vehicle_part for each row execute function tell_all_changed();

create function keep_last_run() returns trigger language plpgsql as $$
begin
  update job set last_run_at = greatest(last_run_at, new.started_at) where id = new.job_id;
  return null;
end
$$;
create trigger run_is_last after insert or update of job_id on run
  for each row when (new.job_id is not null) execute function keep_last_run();

-- A prediction is locked at the setup's first run, and a setup that ran is never taken away.
create function guard_setup() returns trigger language plpgsql as $$
begin
  if (new.prediction_kw, new.prediction_from_rpm, new.prediction_to_rpm)
      is distinct from (old.prediction_kw, old.prediction_from_rpm, old.prediction_to_rpm)
    and exists (select from run where setup_id = old.id) then
    raise exception 'the prediction is locked: the setup has run' using errcode = 'SV001';
  end if;
  if new.removed_at is not null and old.removed_at is null then
    if exists (select from run where setup_id = old.id) then
      raise exception 'a setup that has runs is kept' using errcode = 'SV002';
    end if;
    if exists (select from setup where parent_id = old.id and removed_at is null) then
      raise exception 'another setup was changed from this one' using errcode = 'SV003';
    end if;
    if exists (select from bay where setup_id = old.id) then
      raise exception 'the setup is on the dyno' using errcode = 'SV004';
    end if;
  end if;
  return new;
end
$$;
create trigger setup_guard before update on setup for each row execute function guard_setup();

-- Down Migration

drop trigger run_history on run;
drop trigger run_is_last on run;
drop trigger job_revision on job;
drop trigger job_history on job;
drop trigger setup_revision on setup;
drop trigger setup_history on setup;
drop trigger setup_guard on setup;
alter table job add column vehicle text not null default '', add column owner text not null default '';
update job set vehicle = vehicle.name, owner = coalesce(owner.name, '')
  from vehicle left join owner on owner.id = vehicle.owner_id where vehicle.id = job.vehicle_id;
alter table job alter column vehicle drop default, add check (vehicle <> '');
drop table baseline_run, baseline, setup_tune_file, tune_file, photo_content, photo, note, suspicion_run, suspicion, fuel_entry,
  inspection, job_limit, band, history;
alter table job drop column vehicle_id, drop column state, drop column paused_why, drop column use, drop column target,
  drop column not_wanted, drop column claimed_value, drop column claimed_unit, drop column claimed_scale,
  drop column claimed_source, drop column deliverables, drop column gentler_tune, drop column dyno_kind,
  drop column untested, drop column best_run_id, drop column delivered_setup_id, drop column delivered_note,
  drop column closed_at, drop column last_run_at, drop column revision;
alter table setup drop column revision, drop column removed_at, drop column prediction_kw,
  drop column prediction_from_rpm, drop column prediction_to_rpm, drop column prediction_why, drop column decision,
  drop column decision_why, drop column decided_at;
alter table run drop column fuel;
drop table vehicle_part, vehicle, owner;
drop function keep_history, count_revision, bookkeeping, keep_last_run, guard_setup, tell_all_changed;
