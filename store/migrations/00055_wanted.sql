-- +goose Up
-- What is looked for, perhaps for years, kept whole.
CREATE TABLE want (
    id         bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT want_pkey PRIMARY KEY,
    machine_id bigint      CONSTRAINT want_machine_fkey REFERENCES machine (id), -- for which; null for any
    body       jsonb       NOT NULL,
    is_open    boolean     NOT NULL,
    voided     boolean     NOT NULL DEFAULT false,
    version    integer     NOT NULL DEFAULT 1,
    at         timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX want_open_idx ON want (id) WHERE is_open AND NOT voided;
CREATE INDEX want_machine_idx ON want (machine_id) WHERE machine_id IS NOT NULL;

-- What somebody offers, kept before it is bought, and the lot that it became.
CREATE TABLE offer (
    id             bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT offer_pkey PRIMARY KEY,
    body           jsonb       NOT NULL,
    acquisition_id bigint      CONSTRAINT offer_acquisition_fkey REFERENCES acquisition (id),
    is_open        boolean     NOT NULL,
    voided         boolean     NOT NULL DEFAULT false,
    version        integer     NOT NULL DEFAULT 1,
    at             timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX offer_open_idx ON offer (id) WHERE is_open AND NOT voided;
CREATE INDEX offer_acquisition_idx ON offer (acquisition_id) WHERE acquisition_id IS NOT NULL;

-- +goose Down
DROP TABLE offer, want;
