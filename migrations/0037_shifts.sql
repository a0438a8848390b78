-- Who recorded a run, where they had signed in; and what one shift hands over to the next.

-- Up Migration

-- The name as it was then: it stays readable when the account is gone. Empty where nobody had signed in.
alter table run add column recorded_by text not null default '' check (length(recorded_by) <= 120);

create table shift_note (
  id bigint generated always as identity primary key,
  text text not null check (text <> '' and length(text) <= 4000),
  -- Who hands over, and when.
  handed_by text not null default '' check (length(handed_by) <= 120),
  at timestamptz not null,
  -- Who read it and took over; null until somebody has.
  taken_by text check (length(taken_by) <= 120),
  taken_at timestamptz,
  revision integer not null default 1,
  removed_at timestamptz,
  created_at timestamptz not null default now()
);
create index shift_note_at on shift_note (at desc) where removed_at is null;
create trigger shift_note_revision before update on shift_note for each row execute function count_revision();
create trigger shift_note_history after insert or update on shift_note for each row execute function keep_history();
create trigger shift_note_changed after insert or update on shift_note for each row execute function tell_all_changed();

-- Down Migration

drop table shift_note;
alter table run drop column recorded_by;
