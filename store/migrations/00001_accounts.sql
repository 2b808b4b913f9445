-- +goose Up
CREATE TABLE account (
    id            bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT account_pkey PRIMARY KEY,
    login         text        NOT NULL CONSTRAINT account_login_length CHECK (char_length(login) BETWEEN 1 AND 80),
    name          text        NOT NULL,
    role          text        NOT NULL CONSTRAINT account_role_known CHECK (role IN ('curator', 'technician', 'viewer')),
    password_hash text        NOT NULL,
    created_at    timestamptz NOT NULL DEFAULT now()
);
CREATE UNIQUE INDEX account_login_key ON account (lower(login));

-- Columns as the session library writes them.
CREATE TABLE sessions (
    token  text        CONSTRAINT sessions_pkey PRIMARY KEY,
    data   bytea       NOT NULL,
    expiry timestamptz NOT NULL
);
CREATE INDEX sessions_expiry_idx ON sessions (expiry);

-- Failed sign-ins, by login and by address, so that the limit holds over several servers.
CREATE TABLE sign_in_failure (
    id      bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT sign_in_failure_pkey PRIMARY KEY,
    subject text        NOT NULL,
    at      timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX sign_in_failure_subject_idx ON sign_in_failure (subject, at);

-- +goose Down
DROP TABLE sign_in_failure;
DROP TABLE sessions;
DROP TABLE account;
