-- The standard that a target is wanted under; those from before name none, and are held against what is shown.

-- Up Migration

alter table target add column standard text check (standard in
  ('none', 'sae-j1349', 'std-j607', 'din-70020', 'iso-1585-si', 'iso-1585-ci'));

-- Down Migration

alter table target drop column standard;
