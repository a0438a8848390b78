-- A report as it was on a day: what it says is kept whole and never changes, beside what it rests on.

-- Up Migration

create table report_version (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  -- Counted within the job, and never given out twice.
  number integer not null check (number > 0),
  note text not null default '',
  -- Standard and units that it was written with.
  view jsonb not null check (jsonb_typeof(view) = 'object'),
  rests_on jsonb not null check (jsonb_typeof(rests_on) = 'object'),
  revision integer not null default 1,
  removed_at timestamptz,
  created_at timestamptz not null default now(),
  unique (job_id, number)
);

-- Apart, so that no history copies it.
create table report_version_content (
  report_version_id bigint primary key references report_version,
  draft jsonb,
  written jsonb not null check (jsonb_typeof(written) = 'object')
);

create function keep_report_version() returns trigger language plpgsql as $$
begin
  raise exception 'a kept report is never altered';
end
$$;
create trigger report_version_content_kept before update or delete on report_version_content
  for each row execute function keep_report_version();
create trigger report_version_kept before update of job_id, number, view, rests_on on report_version
  for each row execute function keep_report_version();
create trigger report_version_revision before update on report_version for each row execute function count_revision();
create trigger report_version_history after insert or update on report_version for each row execute function keep_history();
create trigger report_version_changed after insert or update on report_version for each row execute function tell_job_changed();

-- Down Migration

drop table report_version_content, report_version;
drop function keep_report_version;
