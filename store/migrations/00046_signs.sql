-- +goose Up
-- What machines of a model, and assemblies of a kind, show: a sign a line, in the notation of core/sign.
ALTER TABLE machine_model ADD COLUMN signs text NOT NULL DEFAULT '';
ALTER TABLE known_assembly ADD COLUMN signs text NOT NULL DEFAULT '';

-- What somebody saw a machine show. What that means is read from the signs each time.
CREATE TABLE sighting (
    id          bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT sighting_pkey PRIMARY KEY,
    machine_id  bigint      NOT NULL CONSTRAINT sighting_machine_fkey REFERENCES machine (id),
    assembly_id bigint      CONSTRAINT sighting_assembly_fkey REFERENCES assembly (id), -- that showed it, where told
    kind        text        NOT NULL CONSTRAINT sighting_kind_known CHECK (kind IN ('lamps', 'beeps', 'screen', 'code')),
    shown       text        NOT NULL,
    during      text        NOT NULL DEFAULT '', -- what the machine was doing
    note        text        NOT NULL DEFAULT '',
    seen_on     date        NOT NULL,
    voided      boolean     NOT NULL DEFAULT false,
    version     integer     NOT NULL DEFAULT 1,
    account_id  bigint      CONSTRAINT sighting_account_fkey REFERENCES account (id),
    at          timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX sighting_machine_idx ON sighting (machine_id, seen_on DESC, id DESC) WHERE NOT voided;

ALTER TABLE question DROP CONSTRAINT question_sort_known, ADD CONSTRAINT question_sort_known
    CHECK (sort IN ('chip', 'reading', 'card', 'board', 'unit', 'connector', 'switch', 'sign', 'other'));

-- +goose Down
UPDATE question SET sort = 'other' WHERE sort = 'sign';
ALTER TABLE question DROP CONSTRAINT question_sort_known, ADD CONSTRAINT question_sort_known
    CHECK (sort IN ('chip', 'reading', 'card', 'board', 'unit', 'connector', 'switch', 'other'));
DROP TABLE sighting;
ALTER TABLE known_assembly DROP COLUMN signs;
ALTER TABLE machine_model DROP COLUMN signs;
