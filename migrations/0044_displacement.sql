-- How large an engine is: what a diesel is corrected by follows from the fuel that each litre of it gets.

-- Up Migration

alter table vehicle add column displacement_l double precision check (displacement_l > 0);

-- Down Migration

alter table vehicle drop column displacement_l;
