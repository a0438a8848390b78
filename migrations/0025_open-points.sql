-- Up Migration

-- What was still open when the job was closed, in the words of that day.
alter table job add column open_points jsonb not null default '[]' check (jsonb_typeof(open_points) = 'array');

-- Down Migration

alter table job drop column open_points;
