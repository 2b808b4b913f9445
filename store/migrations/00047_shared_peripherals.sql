-- +goose Up
-- Machines that a peripheral serves, and what they do not do without it.
CREATE TABLE service (
    id          bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT service_pkey PRIMARY KEY,
    assembly_id bigint      NOT NULL CONSTRAINT service_assembly_fkey REFERENCES assembly (id),
    machine_id  bigint      NOT NULL CONSTRAINT service_machine_fkey REFERENCES machine (id),
    serves_as   text        NOT NULL, -- keyboard, monitor, supply ...
    without     text        NOT NULL DEFAULT '', -- what the machine does not do without one
    ended       boolean     NOT NULL DEFAULT false,
    version     integer     NOT NULL DEFAULT 1,
    account_id  bigint      CONSTRAINT service_account_fkey REFERENCES account (id),
    at          timestamptz NOT NULL DEFAULT now()
);
CREATE UNIQUE INDEX service_key ON service (assembly_id, machine_id, lower(serves_as)) WHERE NOT ended;
CREATE INDEX service_machine_idx ON service (machine_id) WHERE NOT ended;

-- +goose Down
DROP TABLE service;
