-- Up Migration

-- The smallest change of power that the owner cares about, %: what runs are to show. Null: nobody said.
alter table job add column wanted_percent double precision check (wanted_percent between 0.1 and 20);

-- Down Migration

alter table job drop column wanted_percent;
