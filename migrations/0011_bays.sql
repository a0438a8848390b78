-- Up Migration

-- Several bays, each with a name, and what is on its dyno and planned next.
alter table bay drop constraint bay_id_check;
alter table bay alter column id drop default;
alter table bay add column name text not null default 'Bay 1';
alter table bay alter column name drop default;

-- The bay that a run was made in.
alter table run add column bay integer;

-- Down Migration

alter table run drop column bay;
delete from bay where id <> 1;
alter table bay drop column name;
alter table bay alter column id set default 1;
alter table bay add constraint bay_id_check check (id = 1);
