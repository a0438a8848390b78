-- Up Migration

-- Recorders by the name that their own disk keeps. Whoever takes a recorder's
-- place raises its term, and what an earlier term still sends is refused.
create table recorder (
  id uuid primary key,
  term integer not null default 1,
  taken_at timestamptz not null default now()
);

-- Given by the recorder, so that a run whose entering was not answered is not entered twice.
alter table run
  add column key uuid unique,
  add column recorder uuid references recorder;
alter table run drop column recorder_id;

-- Down Migration

alter table run add column recorder_id integer;
alter table run drop column recorder, drop column key;
drop table recorder;
