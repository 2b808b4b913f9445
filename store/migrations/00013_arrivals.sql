-- +goose Up
CREATE TABLE collection (
    only_row          boolean CONSTRAINT collection_pkey PRIMARY KEY DEFAULT true CONSTRAINT collection_one_row CHECK (only_row),
    name              text    NOT NULL DEFAULT '',
    accession_pattern text    NOT NULL DEFAULT '{year}.{lot}.{item}',
    currency          text    NOT NULL DEFAULT 'EUR',
    version           integer NOT NULL DEFAULT 1
);
INSERT INTO collection DEFAULT VALUES;

-- Every accession number that was ever given. A number is never taken out, and never given twice.
CREATE TABLE accession_number (
    number     text        CONSTRAINT accession_number_pkey PRIMARY KEY,
    machine_id bigint      CONSTRAINT accession_number_machine_fkey REFERENCES machine (id),
    note       text        NOT NULL DEFAULT '', -- why no machine has it: from an old register, or passed over
    given_at   timestamptz NOT NULL DEFAULT now()
);
INSERT INTO accession_number (number, machine_id) SELECT accession, id FROM machine;

CREATE TABLE acquisition (
    id           bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT acquisition_pkey PRIMARY KEY,
    title        text        NOT NULL,
    method       text        NOT NULL CONSTRAINT acquisition_method_known
        CHECK (method IN ('purchase', 'auction', 'gift', 'loan in', 'found', 'transfer', 'exchange')),
    arrived      text        NOT NULL DEFAULT '', -- EDTF
    arrived_from date,                            -- its first day, for lists
    party_id     bigint      CONSTRAINT acquisition_party_fkey REFERENCES party (id),
    price_cents  bigint      CONSTRAINT acquisition_price_positive CHECK (price_cents >= 0),
    currency     text        NOT NULL DEFAULT '',
    costs        jsonb       NOT NULL DEFAULT '[]',
    spread       text        NOT NULL DEFAULT 'estimate' CONSTRAINT acquisition_spread_known CHECK (spread IN ('estimate', 'equal', 'hand')),
    condition    text        NOT NULL DEFAULT '',
    powered      text        NOT NULL DEFAULT '', -- whether it was powered since it last ran, as it was said
    came_with    text        NOT NULL DEFAULT '',
    note         text        NOT NULL DEFAULT '',
    lot          integer,                         -- number of the lot within its year, once a thing of it was numbered
    version      integer     NOT NULL DEFAULT 1,
    updated_at   timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX acquisition_arrived_idx ON acquisition (arrived_from DESC NULLS FIRST, id DESC);
CREATE INDEX acquisition_party_idx ON acquisition (party_id);

CREATE TABLE lot_item (
    id               bigint  GENERATED ALWAYS AS IDENTITY CONSTRAINT lot_item_pkey PRIMARY KEY,
    acquisition_id   bigint  NOT NULL CONSTRAINT lot_item_acquisition_fkey REFERENCES acquisition (id),
    ordinal          integer NOT NULL,
    kind             text    NOT NULL CONSTRAINT lot_item_kind_known
        CHECK (kind IN ('machine', 'board', 'peripheral', 'part', 'media', 'document')),
    title            text    NOT NULL,
    estimate_cents   bigint,
    hand_cents       bigint,
    value_cents      bigint,
    value_note       text    NOT NULL DEFAULT '',
    machine_id       bigint  CONSTRAINT lot_item_machine_fkey REFERENCES machine (id),
    assembly_id      bigint  CONSTRAINT lot_item_assembly_fkey REFERENCES assembly (id),
    passed_to        bigint  CONSTRAINT lot_item_party_fkey REFERENCES party (id),
    passed_on        text    NOT NULL DEFAULT '', -- EDTF; not empty for what was passed on
    passed_for_cents bigint,
    note             text    NOT NULL DEFAULT '',
    struck           boolean NOT NULL DEFAULT false,
    version          integer NOT NULL DEFAULT 1,
    CONSTRAINT lot_item_one_fate CHECK (num_nonnulls(machine_id, assembly_id, NULLIF(passed_on, '')) <= 1)
);
CREATE INDEX lot_item_acquisition_idx ON lot_item (acquisition_id, ordinal);
CREATE UNIQUE INDEX lot_item_machine_key ON lot_item (machine_id) WHERE NOT struck;
CREATE UNIQUE INDEX lot_item_assembly_key ON lot_item (assembly_id) WHERE NOT struck;

-- +goose Down
DROP TABLE lot_item;
DROP TABLE acquisition;
DROP TABLE accession_number;
DROP TABLE collection;
