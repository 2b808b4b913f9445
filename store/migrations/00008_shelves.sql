-- +goose Up
-- What a list of machines is sorted, filtered and counted by, kept as sums so that lists need not
-- reckon. All of it follows from sheets and fittings and can be made anew at any time. Nothing here
-- refers to the machine's row: writing sums must not wait for whoever edits the record.
ALTER TABLE sheet_total
    ADD COLUMN entries  integer NOT NULL DEFAULT 0,
    ADD COLUMN problems integer NOT NULL DEFAULT 0;

CREATE TABLE machine_sum (
    machine_id   bigint  NOT NULL CONSTRAINT machine_sum_pkey PRIMARY KEY,
    boards       integer NOT NULL DEFAULT 0,
    chips        bigint  NOT NULL DEFAULT 0,
    unidentified bigint  NOT NULL DEFAULT 0,
    ram_bytes    bigint  NOT NULL DEFAULT 0,
    rom_bytes    bigint  NOT NULL DEFAULT 0,
    stage        text    NOT NULL DEFAULT 'untouched', -- how far taking stock has come
    attention    integer NOT NULL DEFAULT 0,
    -- As in the machine's record, so that filters and counts read these narrow rows alone.
    place_id     bigint,
    maker        text    NOT NULL DEFAULT '',
    era_from     integer
);
INSERT INTO machine_sum (machine_id, place_id, maker, era_from) SELECT id, place_id, maker, era_from FROM machine;
CREATE INDEX machine_sum_place_idx ON machine_sum (place_id, machine_id);
CREATE INDEX machine_sum_maker_idx ON machine_sum (maker, machine_id);
CREATE INDEX machine_sum_year_idx ON machine_sum ((COALESCE(era_from, 9999)), machine_id);
CREATE INDEX machine_sum_chips_idx ON machine_sum (chips, machine_id);
CREATE INDEX machine_sum_unidentified_idx ON machine_sum (unidentified, machine_id);
CREATE INDEX machine_sum_ram_idx ON machine_sum (ram_bytes, machine_id);
CREATE INDEX machine_sum_rom_idx ON machine_sum (rom_bytes, machine_id);
CREATE INDEX machine_name_idx ON machine (lower(name), id);
CREATE INDEX machine_maker_idx ON machine (lower(maker || ' ' || model), id);
CREATE INDEX machine_accession_idx ON machine (accession, id);

-- A search looks at the place, too. Its name stands in another table, which a generated column cannot read.
ALTER TABLE machine ALTER COLUMN search DROP EXPRESSION;
-- +goose StatementBegin
CREATE FUNCTION machine_search() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    NEW.search := lower(concat_ws(' ', NEW.accession, NEW.name, NEW.maker, NEW.model, NEW.serial, NEW.provenance,
        (SELECT name FROM place WHERE id = NEW.place_id)));
    RETURN NEW;
END
$$;
-- +goose StatementEnd
CREATE TRIGGER machine_search BEFORE INSERT OR UPDATE ON machine FOR EACH ROW EXECUTE FUNCTION machine_search();
UPDATE machine SET search = '';

-- The types that stand on the sheets of the boards fitted today.
CREATE TABLE machine_type (
    type_number text    NOT NULL,
    machine_id  bigint  NOT NULL,
    parts       integer NOT NULL,
    CONSTRAINT machine_type_pkey PRIMARY KEY (type_number, machine_id)
);
CREATE INDEX machine_type_machine_idx ON machine_type (machine_id);

-- Sums of what is there already are made when the application starts.
UPDATE sheet_total SET library_version = 0;

CREATE INDEX fitting_present_machine_idx ON fitting (machine_id) INCLUDE (assembly_id) WHERE until IS NULL;

-- +goose Down
DROP TRIGGER machine_search ON machine;
DROP FUNCTION machine_search();
ALTER TABLE machine DROP COLUMN search;
ALTER TABLE machine ADD COLUMN search text NOT NULL GENERATED ALWAYS AS
    (lower(accession || ' ' || name || ' ' || maker || ' ' || model || ' ' || serial || ' ' || provenance)) STORED;
CREATE INDEX machine_search_idx ON machine USING gin (search gin_trgm_ops);
DROP INDEX fitting_present_machine_idx;
DROP TABLE machine_type;
DROP TABLE machine_sum;
DROP INDEX machine_accession_idx;
DROP INDEX machine_maker_idx;
DROP INDEX machine_name_idx;
ALTER TABLE sheet_total DROP COLUMN problems, DROP COLUMN entries;
