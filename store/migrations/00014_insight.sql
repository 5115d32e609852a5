-- +goose Up

-- The longest time between two changes of an author on a sheet, in milliseconds:
-- by it a class shows what pause is usual.
ALTER TABLE activity ADD COLUMN pause bigint NOT NULL DEFAULT 0;

-- +goose Down
ALTER TABLE activity DROP COLUMN pause;
