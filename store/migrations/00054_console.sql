-- +goose Up
-- What a machine said on its console or its screen: the bytes as they came, or as somebody typed them off.
CREATE TABLE console_capture (
    id         bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT console_capture_pkey PRIMARY KEY,
    machine_id bigint      NOT NULL CONSTRAINT console_capture_machine_fkey REFERENCES machine (id),
    how        text        NOT NULL CONSTRAINT console_capture_how_check CHECK (how IN ('heard', 'typed')),
    raw        bytea       NOT NULL,
    line       text        NOT NULL DEFAULT '', -- speed, bits, parity, the port, in words
    during     text        NOT NULL DEFAULT '', -- what the machine was doing
    note       text        NOT NULL DEFAULT '',
    said_on    date        NOT NULL,
    ended_at   timestamptz,                     -- null while somebody listens
    ended      text        NOT NULL DEFAULT '', -- why it ended
    voided     boolean     NOT NULL DEFAULT false,
    version    integer     NOT NULL DEFAULT 1,
    account_id bigint      CONSTRAINT console_capture_account_fkey REFERENCES account (id),
    at         timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX console_capture_machine_idx ON console_capture (machine_id, said_on, id) WHERE NOT voided;

-- Statements that were taken from a line of it.
CREATE TABLE console_statement (
    capture_id   bigint  NOT NULL CONSTRAINT console_statement_capture_fkey REFERENCES console_capture (id),
    line         integer NOT NULL,
    statement_id bigint  NOT NULL CONSTRAINT console_statement_statement_fkey REFERENCES statement (id),
    CONSTRAINT console_statement_pkey PRIMARY KEY (statement_id)
);
CREATE INDEX console_statement_capture_idx ON console_statement (capture_id);

-- Who practises on the simulated machine, and how far they came. It is no record of the collection.
CREATE TABLE practice_session (
    id         bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT practice_session_pkey PRIMARY KEY,
    account_id bigint      NOT NULL CONSTRAINT practice_session_account_fkey REFERENCES account (id),
    body       jsonb       NOT NULL,
    version    integer     NOT NULL DEFAULT 1,
    at         timestamptz NOT NULL DEFAULT now(),
    CONSTRAINT practice_session_account_key UNIQUE (account_id)
);

-- +goose Down
DROP TABLE practice_session, console_statement, console_capture;
