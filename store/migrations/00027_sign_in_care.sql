-- +goose Up
-- Browsers from which somebody has signed in before: failures of strangers do not close the door for them. Only
-- the hash of what a browser shows is kept.
CREATE TABLE known_browser (
    token_hash text        NOT NULL,
    account_id bigint      NOT NULL CONSTRAINT known_browser_account_fkey REFERENCES account (id),
    last_used  timestamptz NOT NULL DEFAULT now(),
    CONSTRAINT known_browser_pkey PRIMARY KEY (token_hash, account_id) -- several people may share a device
);
CREATE INDEX known_browser_account_idx ON known_browser (account_id, last_used);

-- Sessions are kept by the hash of their token, as the session library writes it: SHA-256 in base64 for addresses,
-- without the = at the end. Nobody is signed out.
UPDATE sessions SET token = rtrim(translate(encode(sha256(convert_to(token, 'UTF8')), 'base64'), '+/', '-_'), '=');

-- +goose Down
DELETE FROM sessions;
DROP TABLE known_browser;
