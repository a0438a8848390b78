-- What a car's fuel pressure regulator holds constant: a sag is judged against it.

-- Up Migration

alter table vehicle
  add column fuel_regulation text check (fuel_regulation in ('manifold', 'constant', 'target'));

-- Down Migration

alter table vehicle drop column fuel_regulation;
