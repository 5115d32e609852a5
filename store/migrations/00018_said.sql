-- +goose Up
-- words is what somebody wrote with a mark, or answered, as it is searched (find.Plain); null until the first
-- search after it was written. Parts of words are found by the trigrams of it.
CREATE EXTENSION IF NOT EXISTS pg_trgm;
ALTER TABLE marks ADD COLUMN words text;
CREATE INDEX marks_words ON marks USING gin (words gin_trgm_ops);
CREATE INDEX marks_unread ON marks (sheet_id) WHERE words IS NULL;

-- +goose Down
DROP INDEX marks_unread, marks_words;
ALTER TABLE marks DROP COLUMN words;
