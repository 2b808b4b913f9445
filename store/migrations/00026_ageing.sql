-- +goose Up
ALTER TABLE place ADD COLUMN climate text NOT NULL DEFAULT ''
    CONSTRAINT place_climate_known CHECK (climate IN ('', 'kept', 'room', 'damp', 'hot', 'outside'));

-- Parts of a machine that age, as its sheets say, with when somebody last looked; a narrow row a machine, so
-- that a whole collection is read at once. It follows from sheets and surveys, and can be made anew.
CREATE TABLE machine_ageing (
    machine_id bigint  CONSTRAINT machine_ageing_pkey PRIMARY KEY,
    parts      text    NOT NULL,
    rules      integer NOT NULL DEFAULT 0 -- by which the parts were told
);

-- What a collection says otherwise of an ageing class than what ships.
CREATE TABLE ageing_class (
    key     text    CONSTRAINT ageing_class_pkey PRIMARY KEY,
    body    jsonb   NOT NULL,
    version integer NOT NULL DEFAULT 1
);

-- +goose Down
DROP TABLE ageing_class;
DROP TABLE machine_ageing;
ALTER TABLE place DROP COLUMN climate;
