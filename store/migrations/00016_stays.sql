-- +goose Up
-- Where a machine is or was, told by day: at a place, lent, or on its way somewhere.
CREATE TABLE stay (
    id         bigint GENERATED ALWAYS AS IDENTITY CONSTRAINT stay_pkey PRIMARY KEY,
    machine_id bigint NOT NULL CONSTRAINT stay_machine_fkey REFERENCES machine (id),
    place_id   bigint CONSTRAINT stay_place_fkey REFERENCES place (id),
    lent_to    text   NOT NULL DEFAULT '',
    bound_for  text   NOT NULL DEFAULT '',
    due        date   CONSTRAINT stay_due_of_loan CHECK (due IS NULL OR lent_to <> ''),
    note       text   NOT NULL DEFAULT '',
    since      date   NOT NULL,
    until      date,
    CONSTRAINT stay_somewhere CHECK (num_nonnulls(place_id, NULLIF(lent_to, ''), NULLIF(bound_for, '')) = 1),
    CONSTRAINT stay_in_order CHECK (until >= since)
);
CREATE UNIQUE INDEX stay_present_key ON stay (machine_id) WHERE until IS NULL;
CREATE INDEX stay_machine_idx ON stay (machine_id, id);
INSERT INTO stay (machine_id, place_id, since) SELECT id, place_id, CAST(created_at AS date) FROM machine WHERE place_id IS NOT NULL;

-- +goose Down
DROP TABLE stay;
