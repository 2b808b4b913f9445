-- +goose Up
ALTER TABLE own_type
    ADD COLUMN maker       text NOT NULL DEFAULT '',
    ADD COLUMN currents    text NOT NULL DEFAULT '', -- by rail, as +5 180/260, +12 20
    ADD COLUMN ageing      text NOT NULL DEFAULT '', -- how it ages
    ADD COLUMN substitutes text NOT NULL DEFAULT '', -- numbers that can take its place
    ADD COLUMN documents   text NOT NULL DEFAULT ''; -- one a line

-- Who made machines and parts.
CREATE TABLE maker (
    id         bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT maker_pkey PRIMARY KEY,
    name       text        NOT NULL,
    founded    text        NOT NULL DEFAULT '', -- EDTF
    ended      text        NOT NULL DEFAULT '', -- EDTF
    place      text        NOT NULL DEFAULT '',
    ties       text        NOT NULL DEFAULT '', -- in the notation of core/maker
    note       text        NOT NULL DEFAULT '',
    source     text        NOT NULL DEFAULT '',
    version    integer     NOT NULL DEFAULT 1,
    updated_at timestamptz NOT NULL DEFAULT now()
);
CREATE UNIQUE INDEX maker_name_key ON maker (lower(name));

-- +goose Down
DROP TABLE maker;
ALTER TABLE own_type DROP COLUMN maker, DROP COLUMN currents, DROP COLUMN ageing, DROP COLUMN substitutes, DROP COLUMN documents;
