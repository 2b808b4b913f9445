-- +goose Up
-- What the revisions of a sheet amount to: which part sat where and until when, and since when each finding stands on it.
-- It follows from the revisions up to one, and can be made anew.
CREATE TABLE sheet_story (
    assembly_id bigint  NOT NULL CONSTRAINT sheet_story_pkey PRIMARY KEY CONSTRAINT sheet_story_assembly_fkey REFERENCES assembly (id),
    through     integer NOT NULL,
    rules       integer NOT NULL,
    story       jsonb   NOT NULL
);

-- A board in store is found wanting as well as a machine.
ALTER TABLE finding ALTER COLUMN machine_id DROP NOT NULL;
ALTER TABLE finding ADD CONSTRAINT finding_has_a_home CHECK (machine_id IS NOT NULL OR assembly_id IS NOT NULL);
CREATE INDEX finding_assembly_idx ON finding (assembly_id) WHERE assembly_id IS NOT NULL;
CREATE INDEX measurement_assembly_idx ON measurement (assembly_id) WHERE assembly_id IS NOT NULL;

-- A look is any look: what was measured, found or read out as well as what a survey saw.
-- +goose StatementBegin
CREATE FUNCTION board_record_due() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    PERFORM note_due((to_jsonb(NEW)->>'machine_id')::bigint, VARIADIC TG_ARGV);
    PERFORM note_due_of_assembly((to_jsonb(NEW)->>'assembly_id')::bigint, VARIADIC TG_ARGV);
    RETURN NULL;
END
$$;
-- +goose StatementEnd
CREATE TRIGGER measurement_due AFTER INSERT OR UPDATE ON measurement FOR EACH ROW EXECUTE FUNCTION board_record_due('machine ageing');
CREATE TRIGGER finding_due AFTER INSERT OR UPDATE ON finding FOR EACH ROW EXECUTE FUNCTION board_record_due('machine ageing');
CREATE TRIGGER rom_read_due AFTER INSERT OR UPDATE ON rom_read FOR EACH ROW EXECUTE FUNCTION board_record_due('machine ageing', 'machine evidence');
-- +goose StatementBegin
CREATE FUNCTION observation_due() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    PERFORM note_due(f.machine_id, 'machine ageing') FROM finding f WHERE f.id = NEW.finding_id;
    PERFORM note_due_of_assembly(f.assembly_id, 'machine ageing') FROM finding f WHERE f.id = NEW.finding_id;
    RETURN NULL;
END
$$;
-- +goose StatementEnd
CREATE TRIGGER observation_due AFTER INSERT OR UPDATE ON observation FOR EACH ROW EXECUTE FUNCTION observation_due();

-- What ages on boards that are in no machine is ranked beside the machines.
CREATE TABLE board_ageing (
    assembly_id bigint  NOT NULL CONSTRAINT board_ageing_pkey PRIMARY KEY CONSTRAINT board_ageing_assembly_fkey REFERENCES assembly (id),
    parts       text    NOT NULL,
    rules       integer NOT NULL
);
-- +goose StatementBegin
CREATE OR REPLACE FUNCTION note_due_of_assembly(assembly bigint, VARIADIC projections text[]) RETURNS void LANGUAGE plpgsql AS $$
BEGIN
    PERFORM note_due(f.machine_id, VARIADIC projections) FROM fitting f WHERE f.assembly_id = assembly AND f.until IS NULL;
    IF 'machine ageing' = ANY (projections) THEN
        PERFORM note_due(f.assembly_id, 'board ageing') FROM fitting f
            WHERE f.assembly_id = assembly AND f.until IS NULL AND f.machine_id IS NULL;
    END IF;
END
$$;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE FUNCTION fitting_due_of_board() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    PERFORM note_due(COALESCE(NEW.assembly_id, OLD.assembly_id), 'board ageing');
    RETURN NULL;
END
$$;
-- +goose StatementEnd
CREATE TRIGGER fitting_due_of_board AFTER INSERT OR UPDATE OF machine_id, until OR DELETE ON fitting
    FOR EACH ROW EXECUTE FUNCTION fitting_due_of_board();
INSERT INTO projection_due (projection, id) SELECT 'board ageing', f.assembly_id FROM fitting f
    WHERE f.until IS NULL AND f.machine_id IS NULL ON CONFLICT DO NOTHING;

-- +goose Down
DELETE FROM projection_due WHERE projection = 'board ageing';
DROP TRIGGER fitting_due_of_board ON fitting;
DROP FUNCTION fitting_due_of_board();
-- +goose StatementBegin
CREATE OR REPLACE FUNCTION note_due_of_assembly(assembly bigint, VARIADIC projections text[]) RETURNS void LANGUAGE plpgsql AS $$
BEGIN
    PERFORM note_due(f.machine_id, VARIADIC projections) FROM fitting f WHERE f.assembly_id = assembly AND f.until IS NULL;
END
$$;
-- +goose StatementEnd
DROP TABLE board_ageing;
DROP TRIGGER observation_due ON observation;
DROP FUNCTION observation_due();
DROP TRIGGER rom_read_due ON rom_read;
DROP TRIGGER finding_due ON finding;
DROP TRIGGER measurement_due ON measurement;
DROP FUNCTION board_record_due();
DROP INDEX measurement_assembly_idx;
DROP INDEX finding_assembly_idx;
ALTER TABLE finding DROP CONSTRAINT finding_has_a_home;
DELETE FROM observation WHERE finding_id IN (SELECT id FROM finding WHERE machine_id IS NULL);
DELETE FROM finding WHERE machine_id IS NULL;
ALTER TABLE finding ALTER COLUMN machine_id SET NOT NULL;
DROP TABLE sheet_story;
