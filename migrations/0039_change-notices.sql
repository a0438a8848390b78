-- What has changed names its table: a page fetches what that touches, and no more.

-- Up Migration

create or replace function tell_job_changed() returns trigger language plpgsql as $$
begin
  perform pg_notify('suvok_changed', json_build_object(
    'table', tg_table_name,
    'job', (to_jsonb(new) ->> case tg_table_name when 'job' then 'id' else 'job_id' end)::bigint)::text);
  return null;
end
$$;
create or replace function tell_all_changed() returns trigger language plpgsql as $$
begin
  perform pg_notify('suvok_changed', json_build_object('table', tg_table_name, 'job', null)::text);
  return null;
end
$$;
-- A link that is made or taken back is seen by whoever has the same job open.
create trigger shared_link_changed after insert or update on shared_link for each row execute function tell_job_changed();

-- Down Migration

drop trigger shared_link_changed on shared_link;
create or replace function tell_job_changed() returns trigger language plpgsql as $$
begin
  perform pg_notify('suvok_changed', coalesce((to_jsonb(new) ->> case tg_table_name when 'job' then 'id' else 'job_id' end), ''));
  return null;
end
$$;
create or replace function tell_all_changed() returns trigger language plpgsql as $$
begin
  perform pg_notify('suvok_changed', '');
  return null;
end
$$;
