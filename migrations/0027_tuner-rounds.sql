-- What goes to a remote tuner and what comes back, so that it is known who waits for whom.

-- Up Migration

create table tuner_package (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  -- That of the last run in it: the one that is tuned on.
  setup_id bigint references setup,
  runs integer not null check (runs > 0),
  revision integer not null default 1,
  removed_at timestamptz,
  created_at timestamptz not null default now()
);
create index tuner_package_job on tuner_package (job_id);
create trigger tuner_package_revision before update on tuner_package for each row execute function count_revision();
create trigger tuner_package_history after insert or update on tuner_package for each row execute function keep_history();
create trigger tuner_package_changed after insert or update on tuner_package for each row execute function tell_job_changed();

-- Whether a file came back from a tuner elsewhere.
alter table setup_tune_file add column returned boolean not null default false;

-- Down Migration

alter table setup_tune_file drop column returned;
drop table tuner_package;
