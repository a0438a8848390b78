-- What a shop asks for its work, and what a job came to: a sum for the invoice, not the invoice.

-- Up Migration

create table price (
  id bigint generated always as identity primary key,
  name text not null check (name <> '' and length(name) <= 120),
  -- What it is asked for: an hour on the dyno, an hour of work, a litre of fuel, a tune file, a piece.
  per text not null check (per in ('dyno hour', 'work hour', 'litre', 'tune file', 'piece')),
  amount numeric(12, 4) not null check (amount >= 0),
  currency text not null check (currency <> '' and length(currency) <= 8),
  revision integer not null default 1,
  removed_at timestamptz,
  created_at timestamptz not null default now()
);
create trigger price_revision before update on price for each row execute function count_revision();
create trigger price_history after insert or update on price for each row execute function keep_history();
create trigger price_changed after insert or update on price for each row execute function tell_all_changed();

create table charge (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  what text not null check (what <> '' and length(what) <= 200),
  per text not null check (per in ('dyno hour', 'work hour', 'litre', 'tune file', 'piece')),
  quantity numeric(12, 4) not null,
  amount numeric(12, 4) not null,
  currency text not null check (currency <> '' and length(currency) <= 8),
  -- Why it is not what the acts tell; empty where it is.
  why text not null default '' check (length(why) <= 300),
  -- The setup whose part it is: what its gain cost.
  setup_id bigint references setup,
  revision integer not null default 1,
  removed_at timestamptz,
  created_at timestamptz not null default now()
);
create index charge_job on charge (job_id);
create trigger charge_revision before update on charge for each row execute function count_revision();
create trigger charge_history after insert or update on charge for each row execute function keep_history();
create trigger charge_changed after insert or update on charge for each row execute function tell_job_changed();

-- Down Migration

drop table charge;
drop table price;
