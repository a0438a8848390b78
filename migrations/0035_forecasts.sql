-- What people say that a setup will make: locked at its first run, scored by what it made.

-- Up Migration

create table forecast (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  setup_id bigint not null references setup,
  who text not null check (who <> '' and length(who) <= 60),
  quantity text not null check (quantity in ('peak power', 'peak torque', 'mean power', 'power at', 'torque at')),
  -- The range of a mean, or the speed of a figure at one.
  from_rpm integer,
  to_rpm integer,
  -- kW or N·m; the same twice for a single value.
  low double precision not null,
  high double precision not null check (high >= low),
  revision integer not null default 1,
  removed_at timestamptz,
  created_at timestamptz not null default now()
);
create index forecast_job on forecast (job_id);
create function lock_forecast() returns trigger language plpgsql as $$
begin
  if exists (select from run where setup_id = new.setup_id) then
    raise exception 'the forecast is locked: the setup has run' using errcode = 'SV009';
  end if;
  return new;
end
$$;
create trigger forecast_locked before insert or update on forecast for each row execute function lock_forecast();
create trigger forecast_revision before update on forecast for each row execute function count_revision();
create trigger forecast_history after insert or update on forecast for each row execute function keep_history();
create trigger forecast_changed after insert or update on forecast for each row execute function tell_job_changed();

-- Down Migration

drop table forecast;
drop function lock_forecast;
