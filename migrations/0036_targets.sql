-- What the owner wants a setup to make; forecasts of boost; a closed job's file stays as it is until it is reopened.

-- Up Migration

create table target (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  quantity text not null check (quantity in
    ('peak power', 'peak torque', 'peak boost', 'mean power', 'mean torque', 'power at', 'torque at', 'boost at')),
  -- The range of a mean, or the speed of a figure at one.
  from_rpm integer check (from_rpm > 0),
  to_rpm integer check (to_rpm > from_rpm),
  -- kW, N·m or kPa, to be made at least.
  value double precision not null check (value > 0),
  -- Boost has none.
  scale text check (scale in ('crank', 'wheels')),
  revision integer not null default 1,
  removed_at timestamptz,
  created_at timestamptz not null default now(),
  check (quantity like '%boost%' or scale is not null)
);
create index target_job on target (job_id);
create trigger target_revision before update on target for each row execute function count_revision();
create trigger target_history after insert or update on target for each row execute function keep_history();
create trigger target_changed after insert or update on target for each row execute function tell_job_changed();

alter table forecast drop constraint forecast_quantity_check;
alter table forecast add constraint forecast_quantity_check check (quantity in
  ('peak power', 'peak torque', 'peak boost', 'mean power', 'mean torque', 'power at', 'torque at', 'boost at'));

-- What was signed in another shop has no text of this one's.
alter table consent alter column template_id drop not null;

-- A closed job: what was agreed, found and tried stays as it is. What comes after it (bills, reports, links,
-- photos, notes) is written all the same, and nothing that is recorded is ever refused.
create function refuse_closed() returns trigger language plpgsql as $$
begin
  if exists (select from job where id = new.job_id and state = 'closed') then
    raise exception 'the job is closed' using errcode = 'SV010';
  end if;
  return new;
end
$$;
do $$
declare
  subject text;
begin
  foreach subject in array array['band', 'job_limit', 'target', 'inspection', 'fuel_entry', 'suspicion', 'setup'] loop
    execute format('create trigger %I before insert or update on %I for each row execute function refuse_closed()', subject || '_of_closed', subject);
  end loop;
end
$$;
create trigger baseline_of_closed before insert on baseline for each row execute function refuse_closed();
create trigger run_of_closed before update of setup_id, set_aside_reason, kind on run for each row
  when (old.set_aside_reason is distinct from new.set_aside_reason or old.setup_id is distinct from new.setup_id
    or old.kind is distinct from new.kind)
  execute function refuse_closed();
create function refuse_closed_words() returns trigger language plpgsql as $$
declare
  words text[] := array['question', 'use', 'target', 'not_wanted', 'claimed_value', 'claimed_unit', 'claimed_scale',
    'claimed_source', 'deliverables', 'gentler_tune', 'wanted_percent', 'dyno_kind', 'tyre_pressure_kpa', 'fan',
    'bonnet', 'gear'];
  field text;
begin
  foreach field in array words loop
    if to_jsonb(new) -> field is distinct from to_jsonb(old) -> field then
      raise exception 'the job is closed' using errcode = 'SV010';
    end if;
  end loop;
  return new;
end
$$;
create trigger job_closed before update on job for each row
  when (old.state = 'closed' and new.state = 'closed') execute function refuse_closed_words();

-- Down Migration

drop trigger job_closed on job;
drop function refuse_closed_words;
drop function refuse_closed cascade;
alter table forecast drop constraint forecast_quantity_check;
alter table forecast add constraint forecast_quantity_check check (quantity in ('peak power', 'peak torque', 'mean power', 'power at', 'torque at')) not valid;
drop table target;
