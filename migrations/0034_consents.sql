-- What an owner agrees to: templates that a shop edits, and what was signed, with its text as it was then.

-- Up Migration

create table consent_template (
  id bigint generated always as identity primary key,
  title text not null check (title <> '' and length(title) <= 120),
  text text not null check (text <> '' and length(text) <= 6000),
  -- When it is asked for.
  asked text not null check (asked in ('every job', 'settings changed', 'diesel', 'by hand')),
  -- Counts every change: what was signed names the version that it was.
  revision integer not null default 1,
  removed_at timestamptz,
  created_at timestamptz not null default now()
);
create trigger consent_template_revision before update on consent_template for each row execute function count_revision();
create trigger consent_template_history after insert or update on consent_template for each row execute function keep_history();
create trigger consent_template_changed after insert or update on consent_template for each row execute function tell_all_changed();

create table consent (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  template_id bigint not null references consent_template,
  version integer not null,
  -- As it was read when it was signed; never changed.
  title text not null,
  text text not null,
  name text not null check (name <> '' and length(name) <= 120),
  -- Lines of the hand, each a list of points: across, down, pressure.
  strokes jsonb not null check (jsonb_typeof(strokes) = 'array'),
  signed_at timestamptz not null default now(),
  revision integer not null default 1,
  removed_at timestamptz
);
create index consent_job on consent (job_id);
create function keep_consent() returns trigger language plpgsql as $$
begin
  if (to_jsonb(new) - 'removed_at' - 'revision') is distinct from (to_jsonb(old) - 'removed_at' - 'revision') then
    raise exception 'what was signed stays as it was signed' using errcode = 'SV008';
  end if;
  return new;
end
$$;
create trigger consent_kept before update on consent for each row execute function keep_consent();
create trigger consent_revision before update on consent for each row execute function count_revision();
create trigger consent_changed after insert or update on consent for each row execute function tell_job_changed();

insert into consent_template (title, text, asked) values
  ('Running on the dyno', E'My vehicle is run on a dyno, at full load and up to its highest speeds. I have told everything that I know of its condition. I know that a hidden fault can damage it, and that I carry that risk.', 'every job'),
  ('Settings not for public roads', E'Settings and parts that are changed in this work may void the vehicle\'s approval, its insurance and its warranty. Whether it may be driven on public roads is for me to find out and my responsibility.', 'settings changed'),
  ('Smoke and emissions', E'Changed fuelling of a diesel may smoke more and wear its filters. I was told what was changed on them. The law on emissions binds me as the owner.', 'diesel'),
  ('Beyond a limit that was named', E'I ask for a setting beyond a limit that was named to me, with what it may cost. I carry the damage that follows from it.', 'by hand');

-- Down Migration

drop table consent;
drop function keep_consent;
drop table consent_template;
