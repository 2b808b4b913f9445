-- +goose Up
-- How many attributes of a machine are disputed, so that lists can say so. It follows from sheets and
-- statements, and is made anew with the other sums when the application starts.
ALTER TABLE machine_sum
    ADD COLUMN disputed        integer NOT NULL DEFAULT 0,
    ADD COLUMN memory_disputed boolean NOT NULL DEFAULT false;
UPDATE sheet_total SET library_version = 0;

-- +goose Down
ALTER TABLE machine_sum DROP COLUMN memory_disputed, DROP COLUMN disputed;
