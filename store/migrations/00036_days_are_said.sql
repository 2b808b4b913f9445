-- +goose Up
-- The day of a record is said by the collection, in its time zone: the database has no day of its own to give.
ALTER TABLE personal_data ALTER COLUMN found_on DROP DEFAULT;
ALTER TABLE rom_read ALTER COLUMN read_on DROP DEFAULT;
ALTER TABLE fitting ALTER COLUMN since DROP DEFAULT;

-- +goose Down
ALTER TABLE fitting ALTER COLUMN since SET DEFAULT current_date;
ALTER TABLE rom_read ALTER COLUMN read_on SET DEFAULT current_date;
ALTER TABLE personal_data ALTER COLUMN found_on SET DEFAULT current_date;
