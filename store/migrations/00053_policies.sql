-- +goose Up
-- Which school a collection restores by, and where a machine goes another way: the last choice of each question.
CREATE TABLE policy (
    id         bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT policy_pkey PRIMARY KEY,
    machine_id bigint      CONSTRAINT policy_machine_fkey REFERENCES machine (id), -- null for the collection
    question   text        NOT NULL,
    option     text        NOT NULL, -- empty: undecided, or as the collection does
    why        text        NOT NULL,
    decided_by text        NOT NULL,
    version    integer     NOT NULL DEFAULT 1,
    at         timestamptz NOT NULL DEFAULT now(),
    CONSTRAINT policy_key UNIQUE NULLS NOT DISTINCT (machine_id, question)
);

-- +goose Down
DROP TABLE policy;
