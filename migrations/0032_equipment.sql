-- What a shop must keep in date: probes, load cells, straps, extinguisher, alarm, keys, licences, weights.

-- Up Migration

create table equipment (
  id bigint generated always as identity primary key,
  name text not null check (name <> '' and length(name) <= 120),
  kind text not null check (kind in ('probe', 'load cell', 'straps', 'extinguisher', 'alarm', 'licence', 'weights', 'instrument', 'other')),
  -- Number on it, or of the licence.
  serial text not null default '' check (length(serial) <= 80),
  -- What is done to it: checked in free air, calibrated, renewed.
  what text not null default '' check (length(what) <= 120),
  last_on date,
  every_days integer check (every_days between 1 and 7300),
  -- A date of its own, in the place of the last one and the interval.
  due_on date,
  -- The instrument on the bench link that it belongs to; empty for none.
  device text not null default '' check (length(device) <= 64),
  note text not null default '' check (length(note) <= 500),
  revision integer not null default 1,
  removed_at timestamptz,
  created_at timestamptz not null default now()
);
create trigger equipment_revision before update on equipment for each row execute function count_revision();
create trigger equipment_history after insert or update on equipment for each row execute function keep_history();
create trigger equipment_changed after insert or update on equipment for each row execute function tell_all_changed();

-- A certificate or a photo of one; its content never changes.
create table equipment_file (
  id bigint generated always as identity primary key,
  equipment_id bigint not null references equipment,
  name text not null check (length(name) <= 200),
  mime text not null,
  content bytea not null,
  bytes integer generated always as (length(content)) stored,
  revision integer not null default 1,
  removed_at timestamptz,
  created_at timestamptz not null default now()
);
create index equipment_file_of on equipment_file (equipment_id);
create trigger equipment_file_changed after insert or update on equipment_file for each row execute function tell_all_changed();

-- Down Migration

drop table equipment_file;
drop table equipment;
