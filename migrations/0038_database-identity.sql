-- Which database this is: a restored or a new one is another, though its rows have the same numbers. And photos by what they hold.

-- Up Migration

create table database_identity (
  one boolean primary key default true check (one),
  id uuid not null default gen_random_uuid()
);
insert into database_identity default values;

alter table photo_content add column sha256 text not null generated always as (encode(sha256(content), 'hex')) stored;

-- Down Migration

alter table photo_content drop column sha256;
drop table database_identity;
