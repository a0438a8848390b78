-- What a run was made under, put right afterwards: columns hold what is taken to be so, `given` what was recorded before a person changed it.

-- Up Migration

alter table run
  add column tyres text,
  add column tyre_pressure_kpa double precision check (tyre_pressure_kpa between 20 and 1000),
  add column fan text,
  add column bonnet text,
  add column load_mode text,
  -- Whether the car was strapped anew before it; null where nobody said.
  add column remounted boolean,
  -- The air as a person stated it: sea-level pressure with elevation, a dew point …
  add column air_stated jsonb,
  add column given jsonb not null default '{}' check (jsonb_typeof(given) = 'object');

-- What the job's runs begin with.
alter table job
  add column tyre_pressure_kpa double precision check (tyre_pressure_kpa between 20 and 1000),
  add column fan text,
  add column bonnet text;

-- A run that is said to be of another day moves its job in the list.
create function put_last_run_right() returns trigger language plpgsql as $$
begin
  update job set last_run_at = (select max(started_at) from run where job_id = new.job_id) where id = new.job_id;
  return null;
end
$$;
create trigger run_is_of_another_day after update of started_at on run
  for each row when (new.job_id is not null and new.started_at is distinct from old.started_at)
  execute function put_last_run_right();

-- All that is said of a run afterwards is kept and can be undone.
drop trigger run_history on run;
create trigger run_history after update of set_aside_reason, note, kind, gear, setup_id, started_at, dyno,
    engine_to_drum_ratio, air, air_taken_at, start_temperatures, fuel, tyres, tyre_pressure_kpa, fan, bonnet, load_mode,
    remounted, air_stated, given on run
  for each row when (old.state = 'sealed' or old.state = 'interrupted') execute function keep_history();

-- Down Migration

drop trigger run_history on run;
create trigger run_history after update of set_aside_reason, note, kind, gear, setup_id on run
  for each row when (old.state = 'sealed' or old.state = 'interrupted') execute function keep_history();
drop trigger run_is_of_another_day on run;
drop function put_last_run_right;
alter table job drop column tyre_pressure_kpa, drop column fan, drop column bonnet;
alter table run drop column given, drop column air_stated, drop column remounted, drop column load_mode, drop column bonnet,
  drop column fan, drop column tyre_pressure_kpa, drop column tyres;
