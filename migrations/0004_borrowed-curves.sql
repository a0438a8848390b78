-- Up Migration

-- A curve from elsewhere (a norm, a maker's sheet, another shop), laid beside runs for orientation.
create table borrowed_curve (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  name text not null check (name <> ''),
  -- Where it comes from, in words: a curve without an origin is worth nothing.
  origin text not null check (origin <> ''),
  scale text not null check (scale in ('crank', 'wheels')),
  -- Pairs of engine speed (rpm, rising) and power (kW).
  points jsonb not null check (jsonb_typeof(points) = 'array' and jsonb_array_length(points) > 1),
  revision integer not null default 1,
  removed_at timestamptz,
  created_at timestamptz not null default now()
);
create index borrowed_curves_of_job on borrowed_curve (job_id);
create trigger borrowed_curve_revision before update on borrowed_curve for each row execute function count_revision();
create trigger borrowed_curve_history after insert or update on borrowed_curve for each row execute function keep_history();
create trigger borrowed_curve_changed after insert or update on borrowed_curve for each row execute function tell_job_changed();

-- Down Migration

drop table borrowed_curve;
