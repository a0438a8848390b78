-- Runs whose power the shop has yet to learn are written down as they come: nobody has to look through all runs for them.

-- Up Migration

create table run_power_wanted (
  run_id bigint primary key references run
);
-- Those that an older program made.
create index run_power_by_version on run_power (version, run_id);

-- A run that is sealed, counted anew, moved or put right: what its setup has without a power is wanted.
create function want_powers() returns trigger language plpgsql as $$
begin
  insert into run_power_wanted (run_id)
    select id from run
    where setup_id = new.setup_id and kind = 'power' and state <> 'recording' and set_aside_reason is null
      and not exists (select from run_power where run_id = run.id)
    on conflict do nothing;
  return null;
end
$$;
-- Its name comes after that of the trigger which forgets a power, and so does it.
create trigger run_without_power after insert or update of state, kind, setup_id, set_aside_reason, dyno, engine_to_drum_ratio, air on run
  for each row when (new.kind = 'power' and new.state <> 'recording' and new.set_aside_reason is null and new.setup_id is not null)
  execute function want_powers();

insert into run_power_wanted (run_id)
  select id from run
  where setup_id is not null and kind = 'power' and state <> 'recording' and set_aside_reason is null
    and not exists (select from run_power where run_id = run.id);

-- Down Migration

drop trigger run_without_power on run;
drop function want_powers;
drop index run_power_by_version;
drop table run_power_wanted;
