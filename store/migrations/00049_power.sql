-- +goose Up
-- What comes out of the wall where the collection is, and for how long an inspection of a supply counts; 0 is not said.
ALTER TABLE collection ADD COLUMN mains_volts double precision NOT NULL DEFAULT 0,
    ADD COLUMN mains_hz double precision NOT NULL DEFAULT 0,
    ADD COLUMN supply_months integer NOT NULL DEFAULT 12;

-- What feeds a machine, kept whole: plate, selector, source, ratings, days.
CREATE TABLE power_supply (
    id         bigint  GENERATED ALWAYS AS IDENTITY CONSTRAINT power_supply_pkey PRIMARY KEY,
    machine_id bigint  NOT NULL CONSTRAINT power_supply_machine_fkey REFERENCES machine (id),
    body       jsonb   NOT NULL,
    voided     boolean NOT NULL DEFAULT false,
    version    integer NOT NULL DEFAULT 1
);
CREATE INDEX power_supply_machine_idx ON power_supply (machine_id, id) WHERE NOT voided;

-- The rungs of a machine's ladder, in their order: what is in, the expected sign, and when to stop.
CREATE TABLE power_rung (
    id         bigint  GENERATED ALWAYS AS IDENTITY CONSTRAINT power_rung_pkey PRIMARY KEY,
    machine_id bigint  NOT NULL CONSTRAINT power_rung_machine_fkey REFERENCES machine (id),
    ordinal    integer NOT NULL,
    body       jsonb   NOT NULL,
    voided     boolean NOT NULL DEFAULT false,
    version    integer NOT NULL DEFAULT 1
);
CREATE INDEX power_rung_machine_idx ON power_rung (machine_id, ordinal, id) WHERE NOT voided;

-- Each time that power was applied: which rungs at once, what was seen, and how the gate stood.
CREATE TABLE power_up (
    id         bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT power_up_pkey PRIMARY KEY,
    machine_id bigint      NOT NULL CONSTRAINT power_up_machine_fkey REFERENCES machine (id),
    done_on    date        NOT NULL,
    body       jsonb       NOT NULL,
    voided     boolean     NOT NULL DEFAULT false,
    version    integer     NOT NULL DEFAULT 1,
    account_id bigint      CONSTRAINT power_up_account_fkey REFERENCES account (id),
    at         timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX power_up_machine_idx ON power_up (machine_id, done_on, id) WHERE NOT voided;

-- What the gate asks of cells and fans that a sheet does not say: it goes with the board that they are on.
CREATE TABLE power_part (
    assembly_id bigint  NOT NULL CONSTRAINT power_part_assembly_fkey REFERENCES assembly (id),
    place       text    NOT NULL, -- designators, or the words of the part where it has none
    body        jsonb   NOT NULL,
    version     integer NOT NULL DEFAULT 1,
    CONSTRAINT power_part_pkey PRIMARY KEY (assembly_id, place)
);

-- What a rail was loaded with when it was measured, and of which supply it is.
ALTER TABLE measurement ADD COLUMN load text NOT NULL DEFAULT '',
    ADD COLUMN power_supply_id bigint CONSTRAINT measurement_power_supply_fkey REFERENCES power_supply (id);

-- +goose Down
ALTER TABLE measurement DROP COLUMN power_supply_id, DROP COLUMN load;
DROP TABLE power_part, power_up, power_rung, power_supply;
ALTER TABLE collection DROP COLUMN supply_months, DROP COLUMN mains_hz, DROP COLUMN mains_volts;
