-- +goose Up
CREATE TABLE sheet_revision (
    assembly_id bigint      NOT NULL CONSTRAINT sheet_revision_assembly_fkey REFERENCES assembly (id),
    n           integer     NOT NULL CONSTRAINT sheet_revision_n_counts CHECK (n >= 1),
    body        text        NOT NULL,
    account_id  bigint      CONSTRAINT sheet_revision_account_fkey REFERENCES account (id),
    at          timestamptz NOT NULL DEFAULT now(),
    CONSTRAINT sheet_revision_pkey PRIMARY KEY (assembly_id, n)
);

-- One socket or part of an assembly. Never deleted: pictures, findings and readings hang on it.
CREATE TABLE position (
    id          bigint  GENERATED ALWAYS AS IDENTITY CONSTRAINT position_pkey PRIMARY KEY,
    assembly_id bigint  NOT NULL CONSTRAINT position_assembly_fkey REFERENCES assembly (id),
    designator  text    NOT NULL,
    ordinal     integer NOT NULL,
    CONSTRAINT position_designator_key UNIQUE (assembly_id, designator, ordinal)
);

-- A parse of the newest revision, to be thrown away and made again at any time.
CREATE TABLE entry (
    id          bigint  GENERATED ALWAYS AS IDENTITY CONSTRAINT entry_pkey PRIMARY KEY,
    assembly_id bigint  NOT NULL CONSTRAINT entry_assembly_fkey REFERENCES assembly (id),
    revision    integer NOT NULL,
    line        integer NOT NULL,
    designators text[]  NOT NULL,
    count       integer NOT NULL,
    kind        text    NOT NULL,
    marking     text    NOT NULL,
    type_number text    NOT NULL DEFAULT '',
    type_class  text    NOT NULL DEFAULT '',
    speed_ns    integer NOT NULL DEFAULT 0,
    date_from   date,
    date_to     date,
    purpose     text    NOT NULL DEFAULT '',
    socketed    boolean NOT NULL,
    empty       boolean NOT NULL,
    doubtful    boolean NOT NULL,
    findings    jsonb   NOT NULL
);
CREATE INDEX entry_assembly_idx ON entry (assembly_id, line);
CREATE INDEX entry_type_idx ON entry (type_number) WHERE type_number <> '';

-- Totals by revision and library version, so that lists need not reckon.
CREATE TABLE sheet_total (
    assembly_id     bigint  NOT NULL CONSTRAINT sheet_total_assembly_fkey REFERENCES assembly (id),
    revision        integer NOT NULL,
    library_version integer NOT NULL,
    totals          jsonb   NOT NULL,
    CONSTRAINT sheet_total_pkey PRIMARY KEY (assembly_id)
);

-- +goose Down
DROP TABLE sheet_total;
DROP TABLE entry;
DROP TABLE position;
DROP TABLE sheet_revision;
