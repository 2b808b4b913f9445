-- +goose Up
-- Work on a machine or one of its boards, kept whole: what is to be done, what it needs, and how it ended.
CREATE TABLE job (
    id          bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT job_pkey PRIMARY KEY,
    machine_id  bigint      NOT NULL CONSTRAINT job_machine_fkey REFERENCES machine (id),
    state       text        NOT NULL,
    body        jsonb       NOT NULL,
    voided      boolean     NOT NULL DEFAULT false,
    version     integer     NOT NULL DEFAULT 1,
    account_id  bigint      CONSTRAINT job_account_fkey REFERENCES account (id),
    at          timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX job_machine_idx ON job (machine_id, id) WHERE NOT voided;
CREATE INDEX job_open_idx ON job (state, id) WHERE NOT voided AND state NOT IN ('done', 'declined');

-- +goose Down
DROP TABLE job;
