-- +goose Up
-- What is told of a model, a fact a line.
ALTER TABLE machine_model ADD COLUMN facts text NOT NULL DEFAULT '';

-- Which model a machine is of. The words of its own record stay as they are said of it.
ALTER TABLE machine ADD COLUMN model_id bigint CONSTRAINT machine_model_fkey REFERENCES machine_model (id);
UPDATE machine m SET model_id = d.id FROM machine_model d
    WHERE lower(m.maker) = lower(d.maker) AND lower(m.model) = lower(d.model) AND m.model <> '';
CREATE INDEX machine_model_idx ON machine (model_id) WHERE model_id IS NOT NULL;

-- +goose Down
ALTER TABLE machine DROP COLUMN model_id;
ALTER TABLE machine_model DROP COLUMN facts;
