-- Up Migration

-- What a decision rested on, in the words of that moment and with the name of its rule: figures are made anew
-- from the recordings, and later runs or another history would say it otherwise.
alter table setup add column decided_on text not null default '';
-- The spread of repeats as the shop knew it when the baseline was frozen; null where it knew none.
alter table baseline add column spread jsonb;

-- Down Migration

alter table baseline drop column spread;
alter table setup drop column decided_on;
