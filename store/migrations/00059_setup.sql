-- +goose Up
-- How a machine was set up on a day, kept whole.
CREATE TABLE configuration (
    id         bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT configuration_pkey PRIMARY KEY,
    machine_id bigint      NOT NULL CONSTRAINT configuration_machine_fkey REFERENCES machine (id),
    on_day     date        NOT NULL,
    body       jsonb       NOT NULL,
    voided     boolean     NOT NULL DEFAULT false,
    version    integer     NOT NULL DEFAULT 1,
    at         timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX configuration_machine_idx ON configuration (machine_id, on_day, id) WHERE NOT voided;

-- What a machine has one of: its operating card, its backplane, the rules of its memory.
CREATE TABLE machine_document (
    machine_id bigint      NOT NULL CONSTRAINT machine_document_machine_fkey REFERENCES machine (id),
    kind       text        NOT NULL CONSTRAINT machine_document_kind_known CHECK (kind IN ('operating card', 'backplane', 'memory rules')),
    body       jsonb       NOT NULL,
    version    integer     NOT NULL DEFAULT 1,
    at         timestamptz NOT NULL DEFAULT now(),
    CONSTRAINT machine_document_pkey PRIMARY KEY (machine_id, kind)
);

-- What one signs on with, and licence keys. The secret is in no other table: neither in the history nor in an export.
CREATE TABLE credential (
    id         bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT credential_pkey PRIMARY KEY,
    machine_id bigint      NOT NULL CONSTRAINT credential_machine_fkey REFERENCES machine (id),
    body       jsonb       NOT NULL,
    secret     text        NOT NULL,
    voided     boolean     NOT NULL DEFAULT false,
    version    integer     NOT NULL DEFAULT 1,
    at         timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX credential_machine_idx ON credential (machine_id, id) WHERE NOT voided;

-- +goose Down
DROP TABLE credential, machine_document, configuration;
