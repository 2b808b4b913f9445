-- +goose Up
-- Drawings of parts that were made, and pictures of what is offered.
ALTER TABLE attachment ADD COLUMN stock_id bigint CONSTRAINT attachment_stock_fkey REFERENCES stock (id);
ALTER TABLE attachment ADD COLUMN offer_id bigint CONSTRAINT attachment_offer_fkey REFERENCES offer (id);
ALTER TABLE attachment DROP CONSTRAINT attachment_of_one;
ALTER TABLE attachment ADD CONSTRAINT attachment_of_one CHECK (num_nonnulls(machine_id, acquisition_id, stock_id, offer_id) = 1);
-- Drawers and offers are for staff, and so is what belongs to them.
ALTER TABLE attachment ADD CONSTRAINT attachment_of_stores_for_staff CHECK (num_nonnulls(stock_id, offer_id) = 0 OR staff_only);
CREATE INDEX attachment_stock_idx ON attachment (stock_id, id) WHERE stock_id IS NOT NULL;
CREATE INDEX attachment_offer_idx ON attachment (offer_id, id) WHERE offer_id IS NOT NULL;
-- The machine that a part was lent out of.
ALTER TABLE stock ADD COLUMN back_machine_id bigint CONSTRAINT stock_back_machine_fkey REFERENCES machine (id);
UPDATE stock s SET back_machine_id = m.id FROM machine m WHERE lower(m.accession) = lower(s.body->>'backTo');
CREATE INDEX stock_back_machine_idx ON stock (back_machine_id) WHERE back_machine_id IS NOT NULL;

-- +goose Down
ALTER TABLE stock DROP COLUMN back_machine_id;
DELETE FROM attachment WHERE num_nonnulls(stock_id, offer_id) = 1;
ALTER TABLE attachment DROP CONSTRAINT attachment_of_stores_for_staff;
ALTER TABLE attachment DROP CONSTRAINT attachment_of_one;
ALTER TABLE attachment DROP COLUMN stock_id;
ALTER TABLE attachment DROP COLUMN offer_id;
ALTER TABLE attachment ADD CONSTRAINT attachment_of_one CHECK (num_nonnulls(machine_id, acquisition_id) = 1);
