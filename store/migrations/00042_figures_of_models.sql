-- +goose Up
-- What machines of a model measure and show.
ALTER TABLE machine_model ADD COLUMN figures text NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE machine_model DROP COLUMN figures;
