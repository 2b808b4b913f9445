-- +goose Up
-- How often it changed who is private and what of texts is meant: what a process has read of that is good while the
-- number is the same.
CREATE TABLE privacy_state (
    only_row boolean CONSTRAINT privacy_state_pkey PRIMARY KEY DEFAULT true CONSTRAINT privacy_state_one_row CHECK (only_row),
    n        bigint  NOT NULL DEFAULT 0
);
INSERT INTO privacy_state DEFAULT VALUES;

-- A place in a text that names a person. Texts point to people so: who it is stays known when the person is called
-- otherwise later, and an ordinary word that is nobody stays a word. A text is known by its sum: a later edit is
-- another text, in which names are found anew.
CREATE TABLE mention (
    id           bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT mention_pkey PRIMARY KEY,
    party_id     bigint      NOT NULL CONSTRAINT mention_party_fkey REFERENCES party (id),
    said         text        NOT NULL, -- the name as it is written there
    around       text        NOT NULL, -- the words around it, to decide by
    text_sum     text        NOT NULL, -- SHA-256 of the whole text
    event_id     bigint      NOT NULL CONSTRAINT mention_event_fkey REFERENCES history (id),
    meant        boolean,              -- null while nobody has decided
    account_id   bigint      CONSTRAINT mention_account_fkey REFERENCES account (id), -- who decided
    decided_at   timestamptz,
    version      integer     NOT NULL DEFAULT 1,
    CONSTRAINT mention_once_key UNIQUE (party_id, text_sum, said)
);
CREATE INDEX mention_open_idx ON mention (id) WHERE meant IS NULL;

-- What others than staff may search in of a record whose texts name a private person, and what they are shown in
-- lists that are counted in the database. Other records have no row. It follows from the records and can be made anew.
CREATE TABLE public_text (
    kind text   NOT NULL CONSTRAINT public_text_kind_known CHECK (kind IN ('machine', 'machine name', 'machine maker', 'place', 'assembly', 'lot')),
    id   bigint NOT NULL,
    body text   NOT NULL,
    CONSTRAINT public_text_pkey PRIMARY KEY (kind, id)
);

-- Records whose public text is to be made anew before the transaction ends that changed them.
CREATE TABLE public_text_due (
    kind text   NOT NULL,
    id   bigint NOT NULL,
    CONSTRAINT public_text_due_pkey PRIMARY KEY (kind, id)
);

-- +goose StatementBegin
CREATE FUNCTION privacy_changed() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    UPDATE privacy_state SET n = n + 1;
    RETURN NULL;
END
$$;
-- +goose StatementEnd
CREATE TRIGGER party_privacy AFTER INSERT OR UPDATE OR DELETE ON party FOR EACH STATEMENT EXECUTE FUNCTION privacy_changed();
CREATE TRIGGER mention_privacy AFTER UPDATE OR DELETE ON mention FOR EACH STATEMENT EXECUTE FUNCTION privacy_changed();

-- +goose StatementBegin
CREATE FUNCTION public_text_changed() RETURNS trigger LANGUAGE plpgsql AS $$
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
CREATE TRIGGER machine_public_text AFTER INSERT OR UPDATE OF accession, name, maker, model, serial, provenance, place_id ON machine
    FOR EACH ROW EXECUTE FUNCTION public_text_changed('machine', 'machine name', 'machine maker');
CREATE TRIGGER place_public_text AFTER INSERT OR UPDATE OF name ON place FOR EACH ROW EXECUTE FUNCTION public_text_changed('place');
CREATE TRIGGER assembly_public_text AFTER INSERT OR UPDATE OF title, part, rev, serial ON assembly
    FOR EACH ROW EXECUTE FUNCTION public_text_changed('assembly');
CREATE TRIGGER acquisition_public_text AFTER INSERT OR UPDATE OF title, method, arrived, note ON acquisition
    FOR EACH ROW EXECUTE FUNCTION public_text_changed('lot');
CREATE TRIGGER lot_item_public_text AFTER INSERT OR UPDATE OF title ON lot_item FOR EACH ROW EXECUTE FUNCTION public_text_changed('lot');

-- What stands there already is made public when the application starts.
INSERT INTO public_text_due SELECT 'machine', id FROM machine WHERE EXISTS (SELECT 1 FROM party WHERE private);
INSERT INTO public_text_due SELECT 'machine name', id FROM machine WHERE EXISTS (SELECT 1 FROM party WHERE private);
INSERT INTO public_text_due SELECT 'machine maker', id FROM machine WHERE EXISTS (SELECT 1 FROM party WHERE private);
INSERT INTO public_text_due SELECT 'place', id FROM place WHERE EXISTS (SELECT 1 FROM party WHERE private);
INSERT INTO public_text_due SELECT 'assembly', id FROM assembly WHERE EXISTS (SELECT 1 FROM party WHERE private);
INSERT INTO public_text_due SELECT 'lot', id FROM acquisition WHERE EXISTS (SELECT 1 FROM party WHERE private);

-- +goose Down
DROP TRIGGER lot_item_public_text ON lot_item;
DROP TRIGGER acquisition_public_text ON acquisition;
DROP TRIGGER assembly_public_text ON assembly;
DROP TRIGGER place_public_text ON place;
DROP TRIGGER machine_public_text ON machine;
DROP FUNCTION public_text_changed();
DROP TRIGGER mention_privacy ON mention;
DROP TRIGGER party_privacy ON party;
DROP FUNCTION privacy_changed();
DROP TABLE public_text_due;
DROP TABLE public_text;
DROP TABLE mention;
DROP TABLE privacy_state;
