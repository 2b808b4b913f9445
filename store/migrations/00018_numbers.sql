-- +goose Up
-- The same identifier is met on machines, on assemblies that are in no machine, and in the documents of lots.
ALTER TABLE identifier
    ADD COLUMN record_kind text NOT NULL DEFAULT 'machine' CONSTRAINT identifier_record_kind_known CHECK (record_kind IN ('machine', 'assembly', 'lot')),
    ADD COLUMN staff_only boolean NOT NULL DEFAULT false; -- it stands in a document that is not shown to viewers
ALTER TABLE identifier ALTER COLUMN record_kind DROP DEFAULT;
ALTER TABLE identifier RENAME COLUMN machine_id TO record_id;
ALTER TABLE identifier DROP CONSTRAINT identifier_pkey;
ALTER TABLE identifier ADD CONSTRAINT identifier_pkey PRIMARY KEY (key, record_kind, record_id, attribute, source);
DROP INDEX identifier_machine_idx;
CREATE INDEX identifier_record_idx ON identifier (record_kind, record_id);
INSERT INTO identifier (key, record_kind, record_id, attribute, value, source)
    SELECT upper(regexp_replace(a.serial, '[^0-9A-Za-z]', '', 'g')), 'assembly', a.id, 'serial', a.serial, a.title
    FROM assembly a JOIN fitting f ON f.assembly_id = a.id AND f.until IS NULL
    WHERE f.machine_id IS NULL AND length(regexp_replace(a.serial, '[^0-9A-Za-z]', '', 'g')) >= 4;

ALTER TABLE identifier_meeting
    DROP CONSTRAINT identifier_meeting_lower_fkey, DROP CONSTRAINT identifier_meeting_higher_fkey,
    DROP CONSTRAINT identifier_meeting_in_order, DROP CONSTRAINT identifier_meeting_key,
    ADD COLUMN lower_kind text NOT NULL DEFAULT 'machine', ADD COLUMN higher_kind text NOT NULL DEFAULT 'machine';
ALTER TABLE identifier_meeting
    ALTER COLUMN lower_kind DROP DEFAULT, ALTER COLUMN higher_kind DROP DEFAULT,
    ADD CONSTRAINT identifier_meeting_in_order CHECK ((lower_kind, lower_id) < (higher_kind, higher_id)),
    ADD CONSTRAINT identifier_meeting_key UNIQUE (key, lower_kind, lower_id, higher_kind, higher_id);

-- Whether a thing came with a lot: the machine or assembly that it became, or the machine that it is in.
-- +goose StatementBegin
CREATE FUNCTION came_with(lot_kind text, lot_id bigint, thing_kind text, thing_id bigint) RETURNS boolean LANGUAGE sql STABLE AS $$
    SELECT lot_kind = 'lot' AND EXISTS (
        SELECT 1 FROM lot_item l LEFT JOIN fitting f ON f.assembly_id = l.assembly_id AND f.until IS NULL
        WHERE l.acquisition_id = lot_id AND NOT l.struck
            AND (thing_kind = 'machine' AND thing_id IN (l.machine_id, f.machine_id) OR thing_kind = 'assembly' AND thing_id = l.assembly_id))
$$;
-- +goose StatementEnd

-- Serials and other numbers that stand in a document or on a picture, one a line.
ALTER TABLE attachment ADD COLUMN numbers text NOT NULL DEFAULT '';

-- +goose Down
DROP FUNCTION came_with;
ALTER TABLE attachment DROP COLUMN numbers;
DELETE FROM identifier_meeting WHERE lower_kind <> 'machine' OR higher_kind <> 'machine';
ALTER TABLE identifier_meeting
    DROP CONSTRAINT identifier_meeting_in_order, DROP CONSTRAINT identifier_meeting_key,
    DROP COLUMN lower_kind, DROP COLUMN higher_kind;
ALTER TABLE identifier_meeting
    ADD CONSTRAINT identifier_meeting_lower_fkey FOREIGN KEY (lower_id) REFERENCES machine (id),
    ADD CONSTRAINT identifier_meeting_higher_fkey FOREIGN KEY (higher_id) REFERENCES machine (id),
    ADD CONSTRAINT identifier_meeting_in_order CHECK (lower_id < higher_id),
    ADD CONSTRAINT identifier_meeting_key UNIQUE (key, lower_id, higher_id);
DELETE FROM identifier WHERE record_kind <> 'machine';
DROP INDEX identifier_record_idx;
ALTER TABLE identifier DROP CONSTRAINT identifier_pkey, DROP COLUMN record_kind, DROP COLUMN staff_only;
ALTER TABLE identifier RENAME COLUMN record_id TO machine_id;
ALTER TABLE identifier ADD CONSTRAINT identifier_pkey PRIMARY KEY (key, machine_id, attribute, source);
CREATE INDEX identifier_machine_idx ON identifier (machine_id);
