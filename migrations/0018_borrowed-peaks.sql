-- A norm may be known by its peak alone, and a curve traced from a picture is known within an error.

-- Up Migration

alter table borrowed_curve
  add column peak_kw double precision check (peak_kw > 0),
  add column error_kw double precision check (error_kw >= 0),
  drop constraint borrowed_curve_points_check,
  add constraint borrowed_curve_points_check
    check (jsonb_typeof(points) = 'array' and (jsonb_array_length(points) > 1 or peak_kw is not null));

-- Down Migration

delete from borrowed_curve where jsonb_array_length(points) < 2;
alter table borrowed_curve
  drop constraint borrowed_curve_points_check,
  add constraint borrowed_curve_points_check check (jsonb_typeof(points) = 'array' and jsonb_array_length(points) > 1),
  drop column peak_kw,
  drop column error_kw;
