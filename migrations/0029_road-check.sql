-- A drive on the road is a run of its own kind.

-- Up Migration

alter table run drop constraint run_kind_check;
alter table run add constraint run_kind_check check (kind in ('power', 'conditioning', 'step', 'part-load', 'idle', 'cold-start', 'transient', 'cruise', 'road-check', 'coast-down', 'check'));

-- Down Migration

update run set kind = 'step' where kind = 'road-check';
alter table run drop constraint run_kind_check;
alter table run add constraint run_kind_check check (kind in ('power', 'conditioning', 'step', 'part-load', 'idle', 'cold-start', 'transient', 'cruise', 'coast-down', 'check'));
