-- +goose Up
-- The outside of a machine has a sheet like a board's, in words of its own. Every machine has one.
ALTER TABLE assembly
    DROP CONSTRAINT assembly_kind_known,
    ADD CONSTRAINT assembly_kind_known CHECK (kind IN ('board', 'card', 'drive', 'supply', 'keyboard', 'monitor', 'other', 'outside'));

-- +goose StatementBegin
DO $$
DECLARE
    found bigint;
    added bigint;
BEGIN
    FOR found IN SELECT id FROM machine LOOP
        INSERT INTO assembly (title, kind) VALUES ('Outside', 'outside') RETURNING id INTO added;
        INSERT INTO fitting (assembly_id, machine_id) VALUES (added, found);
    END LOOP;
END
$$;
-- +goose StatementEnd

-- +goose Down
DELETE FROM fitting WHERE assembly_id IN (SELECT id FROM assembly WHERE kind = 'outside');
DELETE FROM sheet_total WHERE assembly_id IN (SELECT id FROM assembly WHERE kind = 'outside');
DELETE FROM sheet_revision WHERE assembly_id IN (SELECT id FROM assembly WHERE kind = 'outside');
DELETE FROM assembly WHERE kind = 'outside';
ALTER TABLE assembly
    DROP CONSTRAINT assembly_kind_known,
    ADD CONSTRAINT assembly_kind_known CHECK (kind IN ('board', 'card', 'drive', 'supply', 'keyboard', 'monitor', 'other'));
