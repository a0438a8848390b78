-- The shop's day: what is booked for which bay, what a job waits for, and times put right by hand.

-- Up Migration

create table booking (
  id bigint generated always as identity primary key,
  -- Null: on the floor, where no dyno is.
  bay bigint,
  job_id bigint references job,
  -- Who or what comes, while there is no job of it.
  title text not null default '' check (length(title) <= 120),
  work text not null default '' check (length(work) <= 120),
  starts_at timestamptz not null,
  ends_at timestamptz not null check (ends_at > starts_at and ends_at <= starts_at + interval '31 days'),
  -- The same for bookings that repeat each other.
  series uuid,
  revision integer not null default 1,
  removed_at timestamptz,
  created_at timestamptz not null default now(),
  check (job_id is not null or title <> '')
);
create index booking_time on booking (starts_at, ends_at) where removed_at is null;
create index booking_job on booking (job_id);
create trigger booking_revision before update on booking for each row execute function count_revision();
create trigger booking_history after insert or update on booking for each row execute function keep_history();
create trigger booking_changed after insert or update on booking for each row execute function tell_all_changed();

-- Time that was worked on a job, in the place of what its acts tell for that day.
create table work_time (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  bay bigint,
  starts_at timestamptz not null,
  ends_at timestamptz not null check (ends_at > starts_at and ends_at <= starts_at + interval '24 hours'),
  why text not null check (why <> '' and length(why) <= 300),
  revision integer not null default 1,
  removed_at timestamptz,
  created_at timestamptz not null default now()
);
create index work_time_job on work_time (job_id);
create trigger work_time_revision before update on work_time for each row execute function count_revision();
create trigger work_time_history after insert or update on work_time for each row execute function keep_history();
create trigger work_time_changed after insert or update on work_time for each row execute function tell_job_changed();

-- What a paused job waits for, since when, and until when at best.
alter table job add column paused_for text
  check (paused_for in ('part', 'repair', 'file', 'overnight', 'owner', 'collection', 'other'));
alter table job add column paused_at timestamptz;
alter table job add column expected_at timestamptz;
update job set paused_for = 'other', paused_at = coalesce((
  select max(at) from history where subject = 'job' and row_id = job.id and after ->> 'state' = 'paused'), created_at)
where state = 'paused';

-- Which jobs were worked on in a day.
create index run_started on run (started_at);

-- Down Migration

drop index run_started;
alter table job drop column expected_at, drop column paused_at, drop column paused_for;
drop table work_time;
drop table booking;
