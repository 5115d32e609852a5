-- +goose Up
-- frame is where a student has gone at their own pace; null where the teacher leads.
ALTER TABLE participants ADD COLUMN frame text;
UPDATE sessions SET state = (state::jsonb || '{"pace":"led"}')::json;

-- words is what can be read on a frame, as it is searched; null until the first
-- search after a change.
ALTER TABLE frames ADD COLUMN words text;

-- +goose Down
ALTER TABLE frames DROP COLUMN words;
UPDATE sessions SET state = (state::jsonb - 'pace' - 'from' - 'through' - 'groups' - 'groupSize')::json;
ALTER TABLE participants DROP COLUMN frame;
