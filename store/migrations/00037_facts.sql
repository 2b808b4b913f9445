-- +goose Up
-- A statement can be about a part of the machine, and of another nature or form than its attribute; empty for that of
-- the attribute.
ALTER TABLE statement
    ADD COLUMN subject text NOT NULL DEFAULT '',
    ADD COLUMN nature  text NOT NULL DEFAULT '' CONSTRAINT statement_nature_known
        CHECK (nature IN ('', 'constant', 'state', 'part', 'seen-by')),
    ADD COLUMN form    text NOT NULL DEFAULT '';
UPDATE statement SET attribute = 'firmware' WHERE attribute = 'firmware-version';

-- Facts have a time: how much is disputed follows from other rules now.
INSERT INTO projection_due (projection, id) SELECT 'machine evidence', id FROM machine ON CONFLICT DO NOTHING;

-- +goose Down
UPDATE statement SET attribute = 'firmware-version' WHERE attribute = 'firmware';
ALTER TABLE statement DROP COLUMN form, DROP COLUMN nature, DROP COLUMN subject;
