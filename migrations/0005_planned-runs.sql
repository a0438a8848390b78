-- Up Migration

-- Runs of a setup that were planned before its first one: judged as one look when they are all there.
alter table setup add column planned_runs integer check (planned_runs between 1 and 30);

create function guard_plan() returns trigger language plpgsql as $$
begin
  if new.planned_runs is distinct from old.planned_runs and exists (select from run where setup_id = old.id) then
    raise exception 'the plan is locked: the setup has run' using errcode = 'SV005';
  end if;
  return new;
end
$$;
create trigger setup_plan_guard before update of planned_runs on setup for each row execute function guard_plan();

-- Down Migration

drop trigger setup_plan_guard on setup;
drop function guard_plan();
alter table setup drop column planned_runs;
