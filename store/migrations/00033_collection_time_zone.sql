-- +goose Up
-- The time zone in which the collection counts its days; empty until somebody chooses one, which counts as UTC.
ALTER TABLE collection ADD COLUMN time_zone text NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE collection DROP COLUMN time_zone;
