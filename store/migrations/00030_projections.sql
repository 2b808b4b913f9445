-- +goose Up
-- What follows from records and is kept (entries and sums of sheets, what lists are sorted and searched by) is made anew
-- before the transaction ends that changed them. The database itself notes which these are, so that nobody can forget it.
-- Rows of other transactions are left over from a migration; the application takes them when it starts.
CREATE TABLE projection_due (
    tx         xid8   NOT NULL DEFAULT pg_current_xact_id(),
    projection text   NOT NULL,
    id         bigint NOT NULL,
    CONSTRAINT projection_due_pkey PRIMARY KEY (tx, projection, id)
);

-- +goose StatementBegin
CREATE FUNCTION note_due(due_id bigint, VARIADIC projections text[]) RETURNS void LANGUAGE plpgsql AS $$
BEGIN
    IF due_id IS NOT NULL THEN
        INSERT INTO projection_due (projection, id) SELECT p, due_id FROM unnest(projections) p ON CONFLICT DO NOTHING;
    END IF;
END
$$;
-- +goose StatementEnd

-- +goose StatementBegin
CREATE FUNCTION note_due_of_assembly(assembly bigint, VARIADIC projections text[]) RETURNS void LANGUAGE plpgsql AS $$
BEGIN
    PERFORM note_due(f.machine_id, VARIADIC projections) FROM fitting f WHERE f.assembly_id = assembly AND f.until IS NULL;
END
$$;
-- +goose StatementEnd

-- +goose StatementBegin
CREATE FUNCTION sheet_revision_due() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    PERFORM note_due(NEW.assembly_id, 'entries');
    RETURN NULL;
END
$$;
-- +goose StatementEnd
CREATE TRIGGER sheet_revision_due AFTER INSERT ON sheet_revision FOR EACH ROW EXECUTE FUNCTION sheet_revision_due();

-- +goose StatementBegin
CREATE FUNCTION sheet_total_due() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    PERFORM note_due_of_assembly(COALESCE(NEW.assembly_id, OLD.assembly_id), 'machine sum', 'machine evidence', 'machine ageing');
    RETURN NULL;
END
$$;
-- +goose StatementEnd
CREATE TRIGGER sheet_total_due AFTER INSERT OR UPDATE OR DELETE ON sheet_total FOR EACH ROW EXECUTE FUNCTION sheet_total_due();

-- +goose StatementBegin
CREATE FUNCTION fitting_due() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    PERFORM note_due(COALESCE(NEW.assembly_id, OLD.assembly_id), 'entries', 'assembly identifiers');
    IF TG_OP <> 'INSERT' THEN
        PERFORM note_due(OLD.machine_id, 'machine sum', 'machine evidence', 'machine ageing');
    END IF;
    IF TG_OP <> 'DELETE' THEN
        PERFORM note_due(NEW.machine_id, 'machine sum', 'machine evidence', 'machine ageing');
    END IF;
    RETURN NULL;
END
$$;
-- +goose StatementEnd
CREATE TRIGGER fitting_due AFTER INSERT OR UPDATE OF machine_id, until, ordinal OR DELETE ON fitting
    FOR EACH ROW EXECUTE FUNCTION fitting_due();

-- +goose StatementBegin
CREATE FUNCTION assembly_due() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    IF NEW.purpose IS DISTINCT FROM OLD.purpose THEN
        PERFORM note_due(NEW.id, 'entries');
    END IF;
    IF (NEW.title, NEW.serial, NEW.kind) IS DISTINCT FROM (OLD.title, OLD.serial, OLD.kind) THEN
        PERFORM note_due(NEW.id, 'assembly identifiers');
        PERFORM note_due_of_assembly(NEW.id, 'machine sum', 'machine evidence', 'machine ageing');
    END IF;
    RETURN NULL;
END
$$;
-- +goose StatementEnd
CREATE TRIGGER assembly_due AFTER UPDATE OF title, serial, kind, purpose ON assembly FOR EACH ROW EXECUTE FUNCTION assembly_due();

-- +goose StatementBegin
CREATE FUNCTION machine_due() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    PERFORM note_due(NEW.id, 'machine sum', 'machine evidence');
    IF TG_OP = 'INSERT' THEN
        PERFORM note_due(NEW.id, 'machine ageing');
    ELSIF (NEW.era_from, NEW.era_to) IS DISTINCT FROM (OLD.era_from, OLD.era_to) THEN
        PERFORM note_due(f.assembly_id, 'entries') FROM fitting f WHERE f.machine_id = NEW.id AND f.until IS NULL;
    END IF;
    RETURN NULL;
END
$$;
-- +goose StatementEnd
CREATE TRIGGER machine_due AFTER INSERT OR UPDATE OF accession, name, maker, model, serial, place_id, era_from, era_to ON machine
    FOR EACH ROW EXECUTE FUNCTION machine_due();

-- +goose StatementBegin
CREATE FUNCTION machine_record_due() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    PERFORM note_due(NEW.machine_id, VARIADIC TG_ARGV);
    RETURN NULL;
END
$$;
-- +goose StatementEnd
CREATE TRIGGER statement_due AFTER INSERT OR UPDATE ON statement FOR EACH ROW EXECUTE FUNCTION machine_record_due('machine evidence');
CREATE TRIGGER survey_due AFTER INSERT OR UPDATE ON survey FOR EACH ROW EXECUTE FUNCTION machine_record_due('machine ageing');

-- +goose StatementBegin
CREATE FUNCTION attachment_due() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    IF NEW.numbers <> '' OR TG_OP = 'UPDATE' AND OLD.numbers <> '' THEN
        PERFORM note_due(NEW.machine_id, 'machine evidence');
        PERFORM note_due(NEW.acquisition_id, 'lot identifiers');
    END IF;
    RETURN NULL;
END
$$;
-- +goose StatementEnd
CREATE TRIGGER attachment_due AFTER INSERT OR UPDATE ON attachment FOR EACH ROW EXECUTE FUNCTION attachment_due();

-- Public texts are noted in the same list.
INSERT INTO projection_due (projection, id) SELECT 'public ' || kind, id FROM public_text_due;
-- +goose StatementBegin
CREATE OR REPLACE FUNCTION public_text_changed() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    IF EXISTS (SELECT 1 FROM party WHERE private) THEN
        PERFORM note_due(CASE WHEN TG_TABLE_NAME = 'lot_item' THEN (to_jsonb(NEW)->>'acquisition_id')::bigint ELSE NEW.id END,
            VARIADIC ARRAY(SELECT 'public ' || kind FROM unnest(TG_ARGV) kind));
    END IF;
    RETURN NULL;
END
$$;
-- +goose StatementEnd
DROP TABLE public_text_due;

-- +goose Down
CREATE TABLE public_text_due (
    kind text   NOT NULL,
    id   bigint NOT NULL,
    CONSTRAINT public_text_due_pkey PRIMARY KEY (kind, id)
);
INSERT INTO public_text_due SELECT DISTINCT replace(projection, 'public ', ''), id FROM projection_due WHERE projection LIKE 'public %';
-- +goose StatementBegin
CREATE OR REPLACE FUNCTION public_text_changed() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
    kind text;
    changed bigint := CASE WHEN TG_TABLE_NAME = 'lot_item' THEN (to_jsonb(NEW)->>'acquisition_id')::bigint ELSE NEW.id END;
BEGIN
    IF EXISTS (SELECT 1 FROM party WHERE private) THEN
        FOREACH kind IN ARRAY TG_ARGV LOOP
            INSERT INTO public_text_due VALUES (kind, changed) ON CONFLICT DO NOTHING;
        END LOOP;
    END IF;
    RETURN NULL;
END
$$;
-- +goose StatementEnd
DROP TRIGGER attachment_due ON attachment;
DROP TRIGGER survey_due ON survey;
DROP TRIGGER statement_due ON statement;
DROP TRIGGER machine_due ON machine;
DROP TRIGGER assembly_due ON assembly;
DROP TRIGGER fitting_due ON fitting;
DROP TRIGGER sheet_total_due ON sheet_total;
DROP TRIGGER sheet_revision_due ON sheet_revision;
DROP FUNCTION attachment_due();
DROP FUNCTION machine_record_due();
DROP FUNCTION machine_due();
DROP FUNCTION assembly_due();
DROP FUNCTION fitting_due();
DROP FUNCTION sheet_total_due();
DROP FUNCTION sheet_revision_due();
DROP FUNCTION note_due_of_assembly(bigint, text[]);
DROP FUNCTION note_due(bigint, text[]);
DROP TABLE projection_due;
