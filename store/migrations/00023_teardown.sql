-- +goose Up
-- Which plug of a machine goes where. What is written about one is kept whole; whether it is open is a fact of
-- its own.
CREATE TABLE connector (
    id         bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT connector_pkey PRIMARY KEY,
    machine_id bigint      NOT NULL CONSTRAINT connector_machine_fkey REFERENCES machine (id),
    name       text        NOT NULL,
    body       jsonb       NOT NULL,
    open       boolean     NOT NULL DEFAULT false,
    open_since timestamptz,
    struck     boolean     NOT NULL DEFAULT false,
    version    integer     NOT NULL DEFAULT 1
);
CREATE UNIQUE INDEX connector_name_key ON connector (machine_id, lower(name)) WHERE NOT struck;

-- How machines of a model are taken apart, a step a line.
CREATE TABLE procedure (
    id          bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT procedure_pkey PRIMARY KEY,
    maker       text        NOT NULL,
    model       text        NOT NULL,
    title       text        NOT NULL,
    body        text        NOT NULL,
    warnings    text        NOT NULL DEFAULT '',
    teardown_id bigint, -- the log that it was made from
    version     integer     NOT NULL DEFAULT 1,
    updated_at  timestamptz NOT NULL DEFAULT now()
);
CREATE UNIQUE INDEX procedure_title_key ON procedure (lower(maker), lower(model), lower(title));

CREATE TABLE teardown (
    id           bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT teardown_pkey PRIMARY KEY,
    machine_id   bigint      NOT NULL CONSTRAINT teardown_machine_fkey REFERENCES machine (id),
    purpose      text        NOT NULL,
    tray_rows    integer     NOT NULL CONSTRAINT teardown_rows_fit CHECK (tray_rows BETWEEN 1 AND 12),
    tray_columns integer     NOT NULL CONSTRAINT teardown_columns_fit CHECK (tray_columns BETWEEN 1 AND 12),
    procedure_id bigint      CONSTRAINT teardown_procedure_fkey REFERENCES procedure (id),
    outcome      text        NOT NULL DEFAULT 'open' CONSTRAINT teardown_outcome_known CHECK (outcome IN ('open', 'closed', 'together')),
    why          text        NOT NULL DEFAULT '',
    started_by   bigint      CONSTRAINT teardown_started_fkey REFERENCES account (id),
    started_at   timestamptz NOT NULL DEFAULT now(),
    ended_by     bigint      CONSTRAINT teardown_ended_fkey REFERENCES account (id),
    ended_at     timestamptz
);
CREATE UNIQUE INDEX teardown_open_key ON teardown (machine_id) WHERE outcome = 'open';
CREATE INDEX teardown_machine_idx ON teardown (machine_id, id);

-- A step keeps what came off, and how it was put back.
CREATE TABLE teardown_step (
    id          bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT teardown_step_pkey PRIMARY KEY,
    teardown_id bigint      NOT NULL CONSTRAINT teardown_step_teardown_fkey REFERENCES teardown (id),
    body        jsonb       NOT NULL,
    pictures    jsonb       NOT NULL DEFAULT '[]', -- ids of attachments
    reversal    jsonb       NOT NULL DEFAULT '{"state": "off"}',
    struck      boolean     NOT NULL DEFAULT false,
    version     integer     NOT NULL DEFAULT 1,
    account_id  bigint      CONSTRAINT teardown_step_account_fkey REFERENCES account (id),
    at          timestamptz NOT NULL DEFAULT now(),
    reversed_by bigint      CONSTRAINT teardown_step_reversed_fkey REFERENCES account (id),
    reversed_at timestamptz
);
CREATE INDEX teardown_step_idx ON teardown_step (teardown_id, id);

-- +goose Down
DROP TABLE teardown_step;
DROP TABLE teardown;
DROP TABLE procedure;
DROP TABLE connector;
