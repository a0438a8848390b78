-- Up Migration

-- What somebody is told quantities in, wherever they sign in; null until they chose.
alter table person add column units jsonb check (units is null or jsonb_typeof(units) = 'object');

-- Down Migration

alter table person drop column units;
