-- Up Migration

-- How the files of a logger are read, by their headings: made once, and known again.
create table log_source (
  headings text primary key check (headings <> ''),
  name text not null,
  mapping jsonb not null,
  probe jsonb not null,
  used_at timestamptz not null default now()
);

-- A file that joins a run, or is taken off it, is told and can be undone.
drop trigger run_history on run;
create trigger run_history after update of set_aside_reason, note, kind, gear, setup_id, started_at, dyno,
    engine_to_drum_ratio, air, air_taken_at, start_temperatures, fuel, tyres, tyre_pressure_kpa, fan, bonnet, load_mode,
    remounted, air_stated, given, logs on run
  for each row when (old.state = 'sealed' or old.state = 'interrupted') execute function keep_history();

-- What the shop learned of a run's power is made anew where its machine or its air was put right.
create function forget_power() returns trigger language plpgsql as $$
begin
  delete from run_power where run_id = new.id;
  return null;
end
$$;
create trigger run_was_put_right after update of dyno, engine_to_drum_ratio, air, kind on run
  for each row when ((old.dyno, old.engine_to_drum_ratio, old.air, old.kind) is distinct from (new.dyno, new.engine_to_drum_ratio, new.air, new.kind))
  execute function forget_power();

-- Down Migration

drop trigger run_was_put_right on run;
drop function forget_power;
drop trigger run_history on run;
create trigger run_history after update of set_aside_reason, note, kind, gear, setup_id, started_at, dyno,
    engine_to_drum_ratio, air, air_taken_at, start_temperatures, fuel, tyres, tyre_pressure_kpa, fan, bonnet, load_mode,
    remounted, air_stated, given on run
  for each row when (old.state = 'sealed' or old.state = 'interrupted') execute function keep_history();
drop table log_source;
