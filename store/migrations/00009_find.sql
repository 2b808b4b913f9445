-- +goose Up
ALTER TABLE assembly ADD COLUMN search text NOT NULL GENERATED ALWAYS AS
    (lower(title || ' ' || part || ' ' || serial || ' ' || kind)) STORED;
CREATE INDEX assembly_search_idx ON assembly USING gin (search gin_trgm_ops);

-- +goose Down
ALTER TABLE assembly DROP COLUMN search;
