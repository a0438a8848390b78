-- Up Migration

-- Corrected power of a run on an even grid of engine speed, made once from its recording, for what the
-- shop learns of the spread of repeats. Made anew where the version is an older one; null where no curve can be made.
create table run_power (
  run_id bigint primary key references run,
  version integer not null,
  from_rpm double precision,
  step_rpm double precision check (step_rpm > 0),
  power_kw double precision[]
);

-- Down Migration

drop table run_power;
