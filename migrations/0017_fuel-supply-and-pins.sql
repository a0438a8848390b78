-- What a car's injectors and pump give, as their makers rate them, and the channels that a job keeps in sight.

-- Up Migration

alter table vehicle
  add column injectors integer check (injectors between 1 and 48),
  add column injector_flow_cc_min double precision check (injector_flow_cc_min > 0),
  add column injector_rated_kpa double precision check (injector_rated_kpa > 0),
  add column pump_flow_lh double precision check (pump_flow_lh > 0),
  add column pump_rated_kpa double precision check (pump_rated_kpa > 0);
alter table job add column pinned_channels jsonb not null default '[]';

-- Down Migration

alter table job drop column pinned_channels;
alter table vehicle
  drop column injectors,
  drop column injector_flow_cc_min,
  drop column injector_rated_kpa,
  drop column pump_flow_lh,
  drop column pump_rated_kpa;
