-- Up Migration

-- What a car is to the road: mass with driver and fuel, drag coefficient × frontal area, rolling drag as a share of the weight.
alter table vehicle
  add column mass_kg double precision check (mass_kg > 0),
  add column drag_area_m2 double precision check (drag_area_m2 > 0),
  add column rolling_coefficient double precision check (rolling_coefficient > 0);

-- Down Migration

alter table vehicle
  drop column mass_kg,
  drop column drag_area_m2,
  drop column rolling_coefficient;
