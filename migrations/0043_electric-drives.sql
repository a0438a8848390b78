-- A car may be driven by an electric motor.

-- Up Migration

alter table vehicle drop constraint vehicle_ignition_check;
alter table vehicle add constraint vehicle_ignition_check check (ignition in ('spark', 'compression', 'electric'));

-- Down Migration

alter table vehicle drop constraint vehicle_ignition_check;
alter table vehicle add constraint vehicle_ignition_check check (ignition in ('spark', 'compression')) not valid;
