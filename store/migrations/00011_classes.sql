-- +goose Up

-- A class is put away at the end of its year; who leaves it stays in its records.
ALTER TABLE classes ADD COLUMN archived_at timestamptz;
ALTER TABLE students ADD COLUMN left_at timestamptz;

-- +goose Down
ALTER TABLE students DROP COLUMN left_at;
ALTER TABLE classes DROP COLUMN archived_at;
