-- +goose Up
-- Which event an event takes back: what was done and taken back since does not stand in the way of taking back what was
-- done before. Old rows say nothing, and stand in the way as they did.
ALTER TABLE history ADD COLUMN undoes bigint CONSTRAINT history_undoes_fkey REFERENCES history (id);
CREATE INDEX history_undoes_idx ON history (undoes) WHERE undoes IS NOT NULL;

-- +goose Down
DROP INDEX history_undoes_idx;
ALTER TABLE history DROP COLUMN undoes;
