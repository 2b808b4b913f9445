-- +goose Up
ALTER TABLE own_type DROP CONSTRAINT own_type_class_known;
ALTER TABLE own_type ADD CONSTRAINT own_type_class_known CHECK (class IN ('dram', 'sram', 'eprom', 'eeprom', 'flash',
    'mask-rom', 'prom', 'logic', 'processor', 'support', 'own'));

-- +goose Down
ALTER TABLE own_type DROP CONSTRAINT own_type_class_known;
UPDATE own_type SET class = 'eeprom' WHERE class = 'flash';
UPDATE own_type SET class = 'own' WHERE class = 'processor';
ALTER TABLE own_type ADD CONSTRAINT own_type_class_known CHECK (class IN ('dram', 'sram', 'eprom', 'eeprom', 'mask-rom',
    'prom', 'logic', 'support', 'own'));
