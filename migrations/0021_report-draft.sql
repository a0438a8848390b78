-- Up Migration

-- What a person changed of the report that composes itself: order, what is left out, words, units. Null: nothing.
alter table job add column report jsonb check (report is null or jsonb_typeof(report) = 'object');

-- Down Migration

alter table job drop column report;
