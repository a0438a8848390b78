-- Part load, idle, starts, steps of the throttle and cruises: runs of their own kinds, and what a vehicle's fuel table is laid out over.

-- Up Migration

alter table run drop constraint run_kind_check;
alter table run add constraint run_kind_check check (kind in ('power', 'conditioning', 'step', 'part-load', 'idle', 'cold-start', 'transient', 'cruise', 'coast-down', 'check'));

-- Axes, how readings are dealt to cells, and the probe; null until somebody laid one out.
alter table vehicle add column fuelling jsonb;

-- Down Migration

alter table vehicle drop column fuelling;
update run set kind = 'step' where kind in ('part-load', 'idle', 'cold-start', 'transient', 'cruise');
alter table run drop constraint run_kind_check;
alter table run add constraint run_kind_check check (kind in ('power', 'conditioning', 'step', 'coast-down', 'check'));
