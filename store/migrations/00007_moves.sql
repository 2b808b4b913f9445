-- +goose Up
ALTER TABLE assembly ADD COLUMN kind text NOT NULL DEFAULT 'board'
    CONSTRAINT assembly_kind_known CHECK (kind IN ('board', 'card', 'drive', 'supply', 'keyboard', 'monitor', 'other'));

-- Moves are told by day, and may be entered days after. An assembly may also be lent. One without a
-- present fitting was entered by mistake and struck out.
ALTER TABLE fitting
    ALTER COLUMN since DROP DEFAULT,
    ALTER COLUMN since TYPE date USING CAST(since AS date),
    ALTER COLUMN since SET DEFAULT current_date,
    ALTER COLUMN until TYPE date USING CAST(until AS date),
    ADD COLUMN lent_to text NOT NULL DEFAULT '',
    ADD COLUMN due     date CONSTRAINT fitting_due_of_loan CHECK (due IS NULL OR lent_to <> ''),
    ADD COLUMN note    text NOT NULL DEFAULT '',
    DROP CONSTRAINT fitting_somewhere,
    ADD CONSTRAINT fitting_somewhere CHECK (num_nonnulls(machine_id, place_id, NULLIF(lent_to, '')) = 1),
    ADD CONSTRAINT fitting_in_order CHECK (until >= since);
CREATE INDEX fitting_assembly_idx ON fitting (assembly_id, id);
CREATE INDEX fitting_loose_idx ON fitting (assembly_id) WHERE machine_id IS NULL AND until IS NULL;

-- +goose Down
DROP INDEX fitting_loose_idx;
DROP INDEX fitting_assembly_idx;
DELETE FROM fitting WHERE lent_to <> '';
ALTER TABLE fitting
    DROP CONSTRAINT fitting_in_order,
    DROP CONSTRAINT fitting_somewhere,
    DROP COLUMN note,
    DROP COLUMN due,
    DROP COLUMN lent_to,
    ALTER COLUMN since DROP DEFAULT,
    ALTER COLUMN since TYPE timestamptz,
    ALTER COLUMN since SET DEFAULT now(),
    ALTER COLUMN until TYPE timestamptz,
    ADD CONSTRAINT fitting_somewhere CHECK (num_nonnulls(machine_id, place_id) = 1);
ALTER TABLE assembly DROP COLUMN kind;
