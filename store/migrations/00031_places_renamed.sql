-- +goose Up
-- A place that is called otherwise is found by its new name: what is searched of the machines there follows from it.
-- +goose StatementBegin
CREATE FUNCTION place_renamed() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    UPDATE machine SET search = '' WHERE place_id = NEW.id; -- written anew by the trigger of machines
    IF EXISTS (SELECT 1 FROM party WHERE private) THEN
        PERFORM note_due(m.id, 'public machine') FROM machine m WHERE m.place_id = NEW.id;
    END IF;
    RETURN NULL;
END
$$;
-- +goose StatementEnd
CREATE TRIGGER place_renamed AFTER UPDATE OF name ON place
    FOR EACH ROW WHEN (OLD.name <> NEW.name) EXECUTE FUNCTION place_renamed();

-- +goose Down
DROP TRIGGER place_renamed ON place;
DROP FUNCTION place_renamed();
