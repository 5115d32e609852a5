-- +goose Up
-- frame is where a student has gone at their own pace; null where the teacher leads.
ALTER TABLE participants ADD COLUMN frame text;
UPDATE sessions SET state = (state::jsonb || '{"pace":"led"}')::json;

-- +goose Down
UPDATE sessions SET state = (state::jsonb - 'pace' - 'from' - 'through' - 'groups' - 'groupSize')::json;
ALTER TABLE participants DROP COLUMN frame;
