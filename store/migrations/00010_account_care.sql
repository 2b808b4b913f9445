-- +goose Up
ALTER TABLE account
    ADD COLUMN disabled boolean NOT NULL DEFAULT false,
    ADD COLUMN version  integer NOT NULL DEFAULT 1;

-- A link by which somebody sets the password of an account: invited, or after a reset. Only its hash
-- is kept; there is one for an account at most.
CREATE TABLE account_link (
    account_id bigint      NOT NULL CONSTRAINT account_link_pkey PRIMARY KEY CONSTRAINT account_link_account_fkey REFERENCES account (id),
    token_hash text        NOT NULL CONSTRAINT account_link_token_key UNIQUE,
    expires_at timestamptz NOT NULL
);

-- +goose Down
DROP TABLE account_link;
ALTER TABLE account DROP COLUMN version, DROP COLUMN disabled;
