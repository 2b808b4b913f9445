-- +goose Up
-- What a list of machines is sorted, filtered and counted by, kept as sums so that lists need not
-- reckon. All of it follows from sheets and fittings and can be made anew at any time.
ALTER TABLE sheet_total
    ADD COLUMN entries  integer NOT NULL DEFAULT 0,
    ADD COLUMN problems integer NOT NULL DEFAULT 0;

CREATE TABLE machine_sum (
    machine_id   bigint  NOT NULL CONSTRAINT machine_sum_pkey PRIMARY KEY CONSTRAINT machine_sum_machine_fkey REFERENCES machine (id),
    boards       integer NOT NULL DEFAULT 0,
    chips        bigint  NOT NULL DEFAULT 0,
    unidentified bigint  NOT NULL DEFAULT 0,
    ram_bytes    bigint  NOT NULL DEFAULT 0,
    rom_bytes    bigint  NOT NULL DEFAULT 0,
    stage        text    NOT NULL DEFAULT 'untouched', -- how far taking stock has come
    attention    integer NOT NULL DEFAULT 0
);
INSERT INTO machine_sum (machine_id) SELECT id FROM machine;

-- The types that stand on the sheets of the boards fitted today.
CREATE TABLE machine_type (
    type_number text    NOT NULL,
    machine_id  bigint  NOT NULL CONSTRAINT machine_type_machine_fkey REFERENCES machine (id),
    parts       integer NOT NULL,
    CONSTRAINT machine_type_pkey PRIMARY KEY (type_number, machine_id)
);
CREATE INDEX machine_type_machine_idx ON machine_type (machine_id);

-- Sums of what is there already are made when the application starts.
UPDATE sheet_total SET library_version = 0;

CREATE INDEX fitting_present_machine_idx ON fitting (machine_id) INCLUDE (assembly_id) WHERE until IS NULL;

-- +goose Down
DROP INDEX fitting_present_machine_idx;
DROP TABLE machine_type;
DROP TABLE machine_sum;
ALTER TABLE sheet_total DROP COLUMN problems, DROP COLUMN entries;
