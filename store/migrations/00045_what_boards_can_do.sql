-- +goose Up
-- What a board can do by what its chips are for.
ALTER TABLE sheet_total ADD COLUMN can text[] NOT NULL DEFAULT '{}';
CREATE INDEX sheet_total_can_idx ON sheet_total USING gin (can);

-- +goose Down
ALTER TABLE sheet_total DROP COLUMN can;
