-- +goose Up
-- What a request was answered that may be sent again: whoever lost the answer gets it once more, and nothing is
-- done twice. Rows are thrown away after a day.
CREATE TABLE request_key (
    account_id  bigint      NOT NULL CONSTRAINT request_key_account_fkey REFERENCES account (id),
    key         text        NOT NULL,
    fingerprint text        NOT NULL,
    started_at  timestamptz NOT NULL DEFAULT now(),
    attempt     integer     NOT NULL DEFAULT 1, -- one that was begun anew is the only one that may be done
    done        boolean     NOT NULL DEFAULT false,
    status      integer,
    media_type  text        NOT NULL DEFAULT '',
    body        bytea,
    CONSTRAINT request_key_pkey PRIMARY KEY (account_id, key)
);
CREATE INDEX request_key_started_idx ON request_key (started_at);

-- +goose Down
DROP TABLE request_key;
