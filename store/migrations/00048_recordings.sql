-- +goose Up
-- Video and sound stand beside pictures and documents. The picture by which a machine is known is the one that was
-- chosen last.
ALTER TABLE attachment DROP CONSTRAINT attachment_kind_known;
ALTER TABLE attachment ADD CONSTRAINT attachment_kind_known CHECK (kind IN ('picture', 'document', 'recording'));
ALTER TABLE attachment ADD COLUMN portrait_since timestamptz;

-- +goose Down
ALTER TABLE attachment DROP COLUMN portrait_since;
ALTER TABLE attachment DROP CONSTRAINT attachment_kind_known;
DELETE FROM attachment WHERE kind = 'recording';
ALTER TABLE attachment ADD CONSTRAINT attachment_kind_known CHECK (kind IN ('picture', 'document'));
