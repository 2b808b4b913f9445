-- +goose Up
-- Names that everybody knows who comes from engineering or from a museum. What is kept stays the same; the history keeps
-- its words, and reads its old ones.
ALTER TABLE history RENAME COLUMN deed TO action;

ALTER TABLE stay RENAME TO location;
ALTER TABLE location RENAME CONSTRAINT stay_pkey TO location_pkey;
ALTER TABLE location RENAME CONSTRAINT stay_machine_fkey TO location_machine_fkey;
ALTER TABLE location RENAME CONSTRAINT stay_place_fkey TO location_place_fkey;
ALTER TABLE location RENAME CONSTRAINT stay_due_of_loan TO location_due_of_loan;
ALTER TABLE location RENAME CONSTRAINT stay_somewhere TO location_somewhere;
ALTER TABLE location RENAME CONSTRAINT stay_in_order TO location_in_order;
ALTER INDEX stay_present_key RENAME TO location_present_key;
ALTER INDEX stay_machine_idx RENAME TO location_machine_idx;

ALTER TABLE sighting RENAME TO observation;
ALTER TABLE observation RENAME CONSTRAINT sighting_pkey TO observation_pkey;
ALTER TABLE observation RENAME CONSTRAINT sighting_finding_fkey TO observation_finding_fkey;
ALTER TABLE observation RENAME CONSTRAINT sighting_survey_fkey TO observation_survey_fkey;
ALTER TABLE observation RENAME CONSTRAINT sighting_severity_known TO observation_severity_known;
ALTER TABLE observation RENAME CONSTRAINT sighting_trend_known TO observation_trend_known;
ALTER TABLE observation RENAME CONSTRAINT sighting_account_fkey TO observation_account_fkey;
ALTER INDEX sighting_survey_key RENAME TO observation_survey_key;
ALTER INDEX sighting_finding_idx RENAME TO observation_finding_idx;

ALTER TABLE identifier_meeting RENAME TO shared_identifier;
ALTER TABLE shared_identifier RENAME CONSTRAINT identifier_meeting_pkey TO shared_identifier_pkey;
ALTER TABLE shared_identifier RENAME CONSTRAINT identifier_meeting_decision_known TO shared_identifier_decision_known;
ALTER TABLE shared_identifier RENAME CONSTRAINT identifier_meeting_account_fkey TO shared_identifier_account_fkey;
ALTER TABLE shared_identifier RENAME CONSTRAINT identifier_meeting_in_order TO shared_identifier_in_order;
ALTER TABLE shared_identifier RENAME CONSTRAINT identifier_meeting_key TO shared_identifier_key;

ALTER TABLE mystery RENAME TO identification;
ALTER TABLE identification RENAME CONSTRAINT mystery_pkey TO identification_pkey;
ALTER TABLE identification RENAME CONSTRAINT mystery_assembly_fkey TO identification_assembly_fkey;
UPDATE identification SET body = jsonb_set(body, '{evidence}', (
    SELECT COALESCE(jsonb_agg((piece - 'seen') || jsonb_build_object('presence', piece->'seen') ORDER BY n), '[]')
    FROM jsonb_array_elements(body->'evidence') WITH ORDINALITY AS pieces (piece, n)))
    WHERE jsonb_typeof(body->'evidence') = 'array';

ALTER TABLE board_plan RENAME TO annotation;
ALTER TABLE annotation RENAME CONSTRAINT board_plan_pkey TO annotation_pkey;
ALTER TABLE annotation RENAME CONSTRAINT board_plan_attachment_fkey TO annotation_attachment_fkey;
ALTER TABLE annotation RENAME CONSTRAINT board_plan_assembly_fkey TO annotation_assembly_fkey;
ALTER INDEX board_plan_assembly_idx RENAME TO annotation_assembly_idx;

ALTER TABLE ageing_class RENAME TO maintenance_class;
ALTER TABLE maintenance_class RENAME CONSTRAINT ageing_class_pkey TO maintenance_class_pkey;

ALTER TABLE lot_item RENAME COLUMN struck TO voided;
ALTER TABLE lot_item RENAME CONSTRAINT lot_item_one_fate TO lot_item_one_disposition;
ALTER TABLE attachment RENAME COLUMN struck TO voided;
ALTER TABLE rom_read RENAME COLUMN struck TO voided;
ALTER TABLE rom_read RENAME COLUMN way TO method;
ALTER TABLE connector RENAME COLUMN struck TO voided;
ALTER TABLE finding RENAME COLUMN struck TO voided;
ALTER TABLE measurement RENAME COLUMN struck TO voided;
ALTER TABLE teardown_step RENAME COLUMN struck TO voided;
UPDATE teardown_step SET body = jsonb_set(body, '{fasteners}', (
    SELECT COALESCE(jsonb_agg((fastener - 'way') || jsonb_build_object('keeping', fastener->'way') ORDER BY n), '[]')
    FROM jsonb_array_elements(body->'fasteners') WITH ORDINALITY AS fasteners (fastener, n)))
    WHERE jsonb_typeof(body->'fasteners') = 'array';
ALTER TABLE teardown DROP CONSTRAINT teardown_outcome_known;
UPDATE teardown SET outcome = 'closed with exceptions' WHERE outcome = 'together';
ALTER TABLE teardown
    ADD CONSTRAINT teardown_outcome_known CHECK (outcome IN ('open', 'closed', 'closed with exceptions'));

ALTER TABLE statement RENAME COLUMN withdrawn TO retracted;
ALTER TABLE statement RENAME COLUMN said_on TO stated_on;
ALTER TABLE custody RENAME COLUMN withdrawn TO retracted;
ALTER TABLE custody RENAME COLUMN said_on TO stated_on;
ALTER TABLE mention RENAME COLUMN said TO spelling;

ALTER TABLE survey RENAME COLUMN looks TO inspections;
UPDATE survey SET inspections = (
    SELECT COALESCE(jsonb_object_agg(key, (value - 'look') || jsonb_build_object('coverage', value->'look')), '{}')
    FROM jsonb_each(inspections));

-- Of which kind an assembly is says nothing new: nothing follows from the word.
ALTER TABLE assembly DISABLE TRIGGER USER;
ALTER TABLE assembly DROP CONSTRAINT assembly_kind_known;
UPDATE assembly SET kind = 'exterior' WHERE kind = 'outside';
ALTER TABLE assembly ADD CONSTRAINT assembly_kind_known
    CHECK (kind IN ('board', 'card', 'drive', 'supply', 'keyboard', 'monitor', 'other', 'exterior'));
ALTER TABLE assembly ENABLE TRIGGER USER;

-- +goose StatementBegin
CREATE OR REPLACE FUNCTION came_with(lot_kind text, lot_id bigint, thing_kind text, thing_id bigint)
RETURNS boolean LANGUAGE sql STABLE AS $$
    SELECT lot_kind = 'lot' AND EXISTS (
        SELECT 1 FROM lot_item l LEFT JOIN fitting f ON f.assembly_id = l.assembly_id AND f.until IS NULL
        WHERE l.acquisition_id = lot_id AND NOT l.voided
            AND (thing_kind = 'machine' AND thing_id IN (l.machine_id, f.machine_id)
                OR thing_kind = 'assembly' AND thing_id = l.assembly_id))
$$;
-- +goose StatementEnd

-- +goose Down
ALTER TABLE assembly DISABLE TRIGGER USER;
ALTER TABLE assembly DROP CONSTRAINT assembly_kind_known;
UPDATE assembly SET kind = 'outside' WHERE kind = 'exterior';
ALTER TABLE assembly ADD CONSTRAINT assembly_kind_known
    CHECK (kind IN ('board', 'card', 'drive', 'supply', 'keyboard', 'monitor', 'other', 'outside'));
ALTER TABLE assembly ENABLE TRIGGER USER;
UPDATE survey SET inspections = (
    SELECT COALESCE(jsonb_object_agg(key, (value - 'coverage') || jsonb_build_object('look', value->'coverage')), '{}')
    FROM jsonb_each(inspections));
ALTER TABLE teardown DROP CONSTRAINT teardown_outcome_known;
UPDATE teardown SET outcome = 'together' WHERE outcome = 'closed with exceptions';
ALTER TABLE teardown ADD CONSTRAINT teardown_outcome_known CHECK (outcome IN ('open', 'closed', 'together'));
UPDATE teardown_step SET body = jsonb_set(body, '{fasteners}', (
    SELECT COALESCE(jsonb_agg((fastener - 'keeping') || jsonb_build_object('way', fastener->'keeping') ORDER BY n), '[]')
    FROM jsonb_array_elements(body->'fasteners') WITH ORDINALITY AS fasteners (fastener, n)))
    WHERE jsonb_typeof(body->'fasteners') = 'array';
UPDATE identification SET body = jsonb_set(body, '{evidence}', (
    SELECT COALESCE(jsonb_agg((piece - 'presence') || jsonb_build_object('seen', piece->'presence') ORDER BY n), '[]')
    FROM jsonb_array_elements(body->'evidence') WITH ORDINALITY AS pieces (piece, n)))
    WHERE jsonb_typeof(body->'evidence') = 'array';
ALTER TABLE survey RENAME COLUMN inspections TO looks;
ALTER TABLE mention RENAME COLUMN spelling TO said;
ALTER TABLE custody RENAME COLUMN stated_on TO said_on;
ALTER TABLE custody RENAME COLUMN retracted TO withdrawn;
ALTER TABLE statement RENAME COLUMN stated_on TO said_on;
ALTER TABLE statement RENAME COLUMN retracted TO withdrawn;
ALTER TABLE teardown_step RENAME COLUMN voided TO struck;
ALTER TABLE measurement RENAME COLUMN voided TO struck;
ALTER TABLE finding RENAME COLUMN voided TO struck;
ALTER TABLE connector RENAME COLUMN voided TO struck;
ALTER TABLE rom_read RENAME COLUMN method TO way;
ALTER TABLE rom_read RENAME COLUMN voided TO struck;
ALTER TABLE attachment RENAME COLUMN voided TO struck;
ALTER TABLE lot_item RENAME CONSTRAINT lot_item_one_disposition TO lot_item_one_fate;
ALTER TABLE lot_item RENAME COLUMN voided TO struck;
ALTER TABLE maintenance_class RENAME CONSTRAINT maintenance_class_pkey TO ageing_class_pkey;
ALTER TABLE maintenance_class RENAME TO ageing_class;
ALTER INDEX annotation_assembly_idx RENAME TO board_plan_assembly_idx;
ALTER TABLE annotation RENAME CONSTRAINT annotation_assembly_fkey TO board_plan_assembly_fkey;
ALTER TABLE annotation RENAME CONSTRAINT annotation_attachment_fkey TO board_plan_attachment_fkey;
ALTER TABLE annotation RENAME CONSTRAINT annotation_pkey TO board_plan_pkey;
ALTER TABLE annotation RENAME TO board_plan;
ALTER TABLE identification RENAME CONSTRAINT identification_assembly_fkey TO mystery_assembly_fkey;
ALTER TABLE identification RENAME CONSTRAINT identification_pkey TO mystery_pkey;
ALTER TABLE identification RENAME TO mystery;
ALTER TABLE shared_identifier RENAME CONSTRAINT shared_identifier_key TO identifier_meeting_key;
ALTER TABLE shared_identifier RENAME CONSTRAINT shared_identifier_in_order TO identifier_meeting_in_order;
ALTER TABLE shared_identifier RENAME CONSTRAINT shared_identifier_account_fkey TO identifier_meeting_account_fkey;
ALTER TABLE shared_identifier RENAME CONSTRAINT shared_identifier_decision_known TO identifier_meeting_decision_known;
ALTER TABLE shared_identifier RENAME CONSTRAINT shared_identifier_pkey TO identifier_meeting_pkey;
ALTER TABLE shared_identifier RENAME TO identifier_meeting;
ALTER INDEX observation_finding_idx RENAME TO sighting_finding_idx;
ALTER INDEX observation_survey_key RENAME TO sighting_survey_key;
ALTER TABLE observation RENAME CONSTRAINT observation_account_fkey TO sighting_account_fkey;
ALTER TABLE observation RENAME CONSTRAINT observation_trend_known TO sighting_trend_known;
ALTER TABLE observation RENAME CONSTRAINT observation_severity_known TO sighting_severity_known;
ALTER TABLE observation RENAME CONSTRAINT observation_survey_fkey TO sighting_survey_fkey;
ALTER TABLE observation RENAME CONSTRAINT observation_finding_fkey TO sighting_finding_fkey;
ALTER TABLE observation RENAME CONSTRAINT observation_pkey TO sighting_pkey;
ALTER TABLE observation RENAME TO sighting;
ALTER INDEX location_machine_idx RENAME TO stay_machine_idx;
ALTER INDEX location_present_key RENAME TO stay_present_key;
ALTER TABLE location RENAME CONSTRAINT location_in_order TO stay_in_order;
ALTER TABLE location RENAME CONSTRAINT location_somewhere TO stay_somewhere;
ALTER TABLE location RENAME CONSTRAINT location_due_of_loan TO stay_due_of_loan;
ALTER TABLE location RENAME CONSTRAINT location_place_fkey TO stay_place_fkey;
ALTER TABLE location RENAME CONSTRAINT location_machine_fkey TO stay_machine_fkey;
ALTER TABLE location RENAME CONSTRAINT location_pkey TO stay_pkey;
ALTER TABLE location RENAME TO stay;
ALTER TABLE history RENAME COLUMN action TO deed;
-- +goose StatementBegin
CREATE OR REPLACE FUNCTION came_with(lot_kind text, lot_id bigint, thing_kind text, thing_id bigint)
RETURNS boolean LANGUAGE sql STABLE AS $$
    SELECT lot_kind = 'lot' AND EXISTS (
        SELECT 1 FROM lot_item l LEFT JOIN fitting f ON f.assembly_id = l.assembly_id AND f.until IS NULL
        WHERE l.acquisition_id = lot_id AND NOT l.struck
            AND (thing_kind = 'machine' AND thing_id IN (l.machine_id, f.machine_id)
                OR thing_kind = 'assembly' AND thing_id = l.assembly_id))
$$;
-- +goose StatementEnd
