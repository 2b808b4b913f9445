-- +goose Up
CREATE EXTENSION IF NOT EXISTS pg_trgm;

CREATE TABLE place (
    id   bigint GENERATED ALWAYS AS IDENTITY CONSTRAINT place_pkey PRIMARY KEY,
    name text   NOT NULL CONSTRAINT place_name_key UNIQUE
);

CREATE TABLE machine (
    id         bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT machine_pkey PRIMARY KEY,
    accession  text        NOT NULL CONSTRAINT machine_accession_key UNIQUE,
    name       text        NOT NULL,
    maker      text        NOT NULL DEFAULT '',
    model      text        NOT NULL DEFAULT '',
    serial     text        NOT NULL DEFAULT '',
    era_from   integer,
    era_to     integer,
    provenance text        NOT NULL DEFAULT '',
    place_id   bigint      CONSTRAINT machine_place_fkey REFERENCES place (id),
    version    integer     NOT NULL DEFAULT 1,
    created_at timestamptz NOT NULL DEFAULT now(),
    updated_at timestamptz NOT NULL DEFAULT now(),
    -- What a search over machines looks at, in one column so that one index serves it.
    search     text        NOT NULL GENERATED ALWAYS AS
        (lower(accession || ' ' || name || ' ' || maker || ' ' || model || ' ' || serial || ' ' || provenance)) STORED
);
CREATE INDEX machine_search_idx ON machine USING gin (search gin_trgm_ops);
CREATE INDEX machine_place_idx ON machine (place_id);

-- +goose Down
DROP TABLE machine;
DROP TABLE place;
