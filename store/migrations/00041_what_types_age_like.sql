-- +goose Up
-- How a part ages, by its type.
ALTER TABLE entry ADD COLUMN type_ages text NOT NULL DEFAULT '';

-- Date codes of parts and contents of chips are evidence, too.
INSERT INTO projection_due (projection, id) SELECT 'machine evidence', id FROM machine ON CONFLICT DO NOTHING;

-- +goose Down
ALTER TABLE entry DROP COLUMN type_ages;
