-- How many bytes a snapshot keeps that the one before it did not; null until somebody has counted.
alter table snapshot
  add column added bigint null;
-- Restore points, and what sites use, are asked for by theme.
alter table snapshot
  add index snapshot_theme_point (theme_id, point_name);
