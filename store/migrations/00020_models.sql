-- +goose Up
-- Models of machines: when they were made, and what a machine of the model holds.
CREATE TABLE machine_model (
    id         bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT machine_model_pkey PRIMARY KEY,
    maker      text        NOT NULL,
    model      text        NOT NULL,
    made       text        NOT NULL DEFAULT '', -- EDTF interval
    variants   text        NOT NULL DEFAULT '', -- one a line
    expected   text        NOT NULL DEFAULT '', -- in the notation of core/model
    note       text        NOT NULL DEFAULT '',
    source     text        NOT NULL DEFAULT '',
    version    integer     NOT NULL DEFAULT 1,
    updated_at timestamptz NOT NULL DEFAULT now()
);
CREATE UNIQUE INDEX machine_model_key ON machine_model (lower(maker), lower(model));

-- +goose Down
DROP TABLE machine_model;
