-- +goose Up
-- A drawer of the stores: so many of one part in one state, kept whole but for what is counted and looked for.
CREATE TABLE stock (
    id        bigint  GENERATED ALWAYS AS IDENTITY CONSTRAINT stock_pkey PRIMARY KEY,
    body      jsonb   NOT NULL,
    count     integer NOT NULL CONSTRAINT stock_count CHECK (count >= 0),
    place_id  bigint  CONSTRAINT stock_place_fkey REFERENCES place (id),
    -- The job that took it out of a machine; nothing for what was bought.
    from_job_id bigint CONSTRAINT stock_from_job_fkey REFERENCES job (id),
    words     text    NOT NULL, -- by which it is found, in lower case
    voided    boolean NOT NULL DEFAULT false,
    version   integer NOT NULL DEFAULT 1
);
CREATE INDEX stock_words_idx ON stock USING gin (words gin_trgm_ops);
CREATE INDEX stock_place_idx ON stock (place_id);
CREATE INDEX stock_from_job_idx ON stock (from_job_id);

-- What was ordered, kept whole with what came of it.
CREATE TABLE parts_order (
    id      bigint  GENERATED ALWAYS AS IDENTITY CONSTRAINT parts_order_pkey PRIMARY KEY,
    body    jsonb   NOT NULL,
    is_open boolean NOT NULL, -- something is to come
    voided  boolean NOT NULL DEFAULT false,
    version integer NOT NULL DEFAULT 1
);
CREATE INDEX parts_order_open_idx ON parts_order (id) WHERE is_open AND NOT voided;

-- What of a drawer, or of a line of an order, is meant for a need of a job alone.
CREATE TABLE set_aside (
    id       bigint  GENERATED ALWAYS AS IDENTITY CONSTRAINT set_aside_pkey PRIMARY KEY,
    job_id   bigint  NOT NULL CONSTRAINT set_aside_job_fkey REFERENCES job (id),
    need     text    NOT NULL,
    stock_id bigint  CONSTRAINT set_aside_stock_fkey REFERENCES stock (id),
    order_id bigint  CONSTRAINT set_aside_order_fkey REFERENCES parts_order (id),
    line     integer NOT NULL DEFAULT 0,
    count    integer NOT NULL CONSTRAINT set_aside_count CHECK (count > 0),
    CONSTRAINT set_aside_of_one CHECK (num_nonnulls(stock_id, order_id) = 1)
);
CREATE INDEX set_aside_job_idx ON set_aside (job_id);
CREATE INDEX set_aside_stock_idx ON set_aside (stock_id);
CREATE INDEX set_aside_order_idx ON set_aside (order_id);

-- +goose Down
DROP TABLE set_aside, parts_order, stock;
