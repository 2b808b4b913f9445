-- +goose Up
-- How a part ages, by its type.
ALTER TABLE entry ADD COLUMN type_ages text NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE entry DROP COLUMN type_ages;
