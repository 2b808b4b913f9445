-- +goose Up
CREATE TABLE assembly (
    id         bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT assembly_pkey PRIMARY KEY,
    title      text        NOT NULL,
    part       text        NOT NULL DEFAULT '',
    rev        text        NOT NULL DEFAULT '',
    serial     text        NOT NULL DEFAULT '',
    purpose    text        NOT NULL DEFAULT ''
        CONSTRAINT assembly_purpose_known CHECK (purpose IN ('', 'main', 'picture', 'cache', 'shared', 'card')),
    version    integer     NOT NULL DEFAULT 1,
    created_at timestamptz NOT NULL DEFAULT now(),
    updated_at timestamptz NOT NULL DEFAULT now()
);

-- Where an assembly is or was: in a machine or at a place, never both. At most one is present.
CREATE TABLE fitting (
    id          bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT fitting_pkey PRIMARY KEY,
    assembly_id bigint      NOT NULL CONSTRAINT fitting_assembly_fkey REFERENCES assembly (id),
    machine_id  bigint      CONSTRAINT fitting_machine_fkey REFERENCES machine (id),
    place_id    bigint      CONSTRAINT fitting_place_fkey REFERENCES place (id),
    slot        text        NOT NULL DEFAULT '',
    fit         text        NOT NULL DEFAULT 'unknown'
        CONSTRAINT fitting_fit_known CHECK (fit IN ('factory', 'period', 'later', 'modern', 'unknown')),
    ordinal     integer     NOT NULL DEFAULT 0,
    since       timestamptz NOT NULL DEFAULT now(),
    until       timestamptz,
    CONSTRAINT fitting_somewhere CHECK (num_nonnulls(machine_id, place_id) = 1)
);
CREATE UNIQUE INDEX fitting_present_key ON fitting (assembly_id) WHERE until IS NULL;
CREATE INDEX fitting_machine_idx ON fitting (machine_id, ordinal) WHERE until IS NULL;

-- +goose Down
DROP TABLE fitting;
DROP TABLE assembly;
