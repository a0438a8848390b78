-- Up Migration

-- A job keeps its vehicle: undoing the act that wrote a vehicle down left jobs without one.
create function guard_vehicle() returns trigger language plpgsql as $$
begin
  if new.removed_at is not null and old.removed_at is null and exists (select from job where vehicle_id = old.id) then
    raise exception 'a vehicle that has jobs is kept' using errcode = 'SV006';
  end if;
  return new;
end
$$;
create trigger vehicle_guard before update of removed_at on vehicle for each row execute function guard_vehicle();
update vehicle set removed_at = null where removed_at is not null and exists (select from job where vehicle_id = vehicle.id);

-- Down Migration

drop trigger vehicle_guard on vehicle;
drop function guard_vehicle();
