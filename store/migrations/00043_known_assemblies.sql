-- +goose Up
-- Cards, boards, supplies, keyboards and leads that somebody named once, by what they are recognised everywhere.
CREATE TABLE known_assembly (
    id         bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT known_assembly_pkey PRIMARY KEY,
    kind       text        NOT NULL CONSTRAINT known_assembly_kind_known
        CHECK (kind IN ('board', 'card', 'drive', 'supply', 'keyboard', 'monitor', 'lead', 'other')),
    name       text        NOT NULL,
    maker      text        NOT NULL DEFAULT '',
    numbers    text        NOT NULL DEFAULT '', -- part numbers, one a line
    revisions  text        NOT NULL DEFAULT '', -- that it speaks of; empty for every one
    printed    text        NOT NULL DEFAULT '', -- words that tell it from others, one a line
    chips      text        NOT NULL DEFAULT '', -- types that tell it from others, one a line
    details    text        NOT NULL DEFAULT '', -- in the notation of core/known
    note       text        NOT NULL DEFAULT '',
    source     text        NOT NULL DEFAULT '',
    struck     boolean     NOT NULL DEFAULT false, -- it was named by mistake
    version    integer     NOT NULL DEFAULT 1,
    updated_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX known_assembly_name_idx ON known_assembly (lower(name), id);

-- Counts changes of known assemblies, so that a process knows whether those it has read are still current.
CREATE TABLE known_state (
    only_row boolean CONSTRAINT known_state_pkey PRIMARY KEY DEFAULT true CONSTRAINT known_state_one_row CHECK (only_row),
    n        bigint  NOT NULL DEFAULT 0
);
INSERT INTO known_state DEFAULT VALUES;

-- The part number as core/known folds it: without signs, and from its first digit on.
ALTER TABLE assembly ADD COLUMN part_key text NOT NULL GENERATED ALWAYS AS (regexp_replace(
    translate(upper(part COLLATE "C"), E' \t\u00a0-\u2010\u2011\u2012\u2013\u2014\u2212_./\\,:;#()+*''"', ''),
    '^[^0-9]+(?=[0-9])', '')) STORED;
CREATE INDEX assembly_part_key_idx ON assembly (part_key text_pattern_ops) WHERE part_key <> '';

-- Whether a board has a fault that boards of its kind are known to have.
CREATE TABLE fault_check (
    id          bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT fault_check_pkey PRIMARY KEY,
    known_id    bigint      NOT NULL CONSTRAINT fault_check_known_fkey REFERENCES known_assembly (id),
    assembly_id bigint      NOT NULL CONSTRAINT fault_check_assembly_fkey REFERENCES assembly (id),
    fault       text        NOT NULL, -- as the record names it
    has_it      boolean     NOT NULL,
    note        text        NOT NULL DEFAULT '',
    checked_on  date        NOT NULL,
    account_id  bigint      CONSTRAINT fault_check_account_fkey REFERENCES account (id),
    at          timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX fault_check_known_idx ON fault_check (known_id, assembly_id);
CREATE INDEX fault_check_assembly_idx ON fault_check (assembly_id);

ALTER TABLE question DROP CONSTRAINT question_sort_known, ADD CONSTRAINT question_sort_known
    CHECK (sort IN ('chip', 'reading', 'card', 'board', 'unit', 'connector', 'switch', 'other'));

-- +goose Down
UPDATE question SET sort = 'other' WHERE sort = 'unit';
ALTER TABLE question DROP CONSTRAINT question_sort_known, ADD CONSTRAINT question_sort_known
    CHECK (sort IN ('chip', 'reading', 'card', 'board', 'connector', 'switch', 'other'));
DROP TABLE fault_check;
DROP INDEX assembly_part_key_idx;
ALTER TABLE assembly DROP COLUMN part_key;
DROP TABLE known_state;
DROP TABLE known_assembly;
