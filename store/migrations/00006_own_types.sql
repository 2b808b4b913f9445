-- +goose Up
-- Types that the collection named itself. The words of a marking are compared without regard to
-- case, so numbers are kept in upper case.
CREATE TABLE own_type (
    id          bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT own_type_pkey PRIMARY KEY,
    number      text        NOT NULL CONSTRAINT own_type_number_key UNIQUE,
    class       text        NOT NULL CONSTRAINT own_type_class_known
        CHECK (class IN ('dram', 'sram', 'eprom', 'eeprom', 'mask-rom', 'prom', 'logic', 'support', 'own')),
    function    text        NOT NULL,
    words       integer     NOT NULL DEFAULT 0,
    bits        integer     NOT NULL DEFAULT 0,
    package     text        NOT NULL DEFAULT '',
    clock_mhz   double precision NOT NULL DEFAULT 0,
    typical_ma  double precision NOT NULL DEFAULT 0,
    notes       text        NOT NULL DEFAULT '',
    version     integer     NOT NULL DEFAULT 1,
    updated_at  timestamptz NOT NULL DEFAULT now()
);

-- Counts changes of own types, so that a process knows whether those it has read are still current.
CREATE TABLE library_state (
    only_row boolean CONSTRAINT library_state_pkey PRIMARY KEY DEFAULT true CONSTRAINT library_state_one_row CHECK (only_row),
    n        bigint  NOT NULL DEFAULT 0
);
INSERT INTO library_state DEFAULT VALUES;

-- Finds the assemblies that a new type touches, and the places where a type occurs.
CREATE INDEX entry_marking_idx ON entry USING gin (upper(translate(marking, 'µμ', 'UU')) gin_trgm_ops);

-- +goose Down
DROP INDEX entry_marking_idx;
DROP TABLE library_state;
DROP TABLE own_type;
