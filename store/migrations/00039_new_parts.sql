-- +goose Up
-- What somebody put in later, and what nobody knows, be it a chip or not.
ALTER TABLE entry ADD COLUMN new_since text;
ALTER TABLE entry ADD COLUMN unidentified boolean NOT NULL DEFAULT false;
UPDATE entry SET unidentified = true WHERE kind = 'chip' AND NOT empty AND type_number = '';
DROP INDEX entry_unknown_idx;
CREATE INDEX entry_unknown_idx ON entry (assembly_id, line) WHERE unidentified OR doubtful;

-- +goose Down
DROP INDEX entry_unknown_idx;
CREATE INDEX entry_unknown_idx ON entry (assembly_id, line) WHERE kind = 'chip' AND NOT empty AND (type_number = '' OR doubtful);
ALTER TABLE entry DROP COLUMN unidentified;
ALTER TABLE entry DROP COLUMN new_since;
