-- +goose Up
-- By which names people come in may be changed while the lesson runs.
UPDATE sessions SET state = (state::jsonb || '{"entry":"list"}')::json WHERE listed AND ended_at IS NULL;
ALTER TABLE sessions DROP COLUMN listed;

-- What the teacher told a session, in order, for the line of what happened.
CREATE TABLE happenings (
    session_id uuid NOT NULL REFERENCES sessions ON DELETE CASCADE,
    rev        bigint NOT NULL,
    at         bigint NOT NULL, -- milliseconds since 1970
    by         text NOT NULL,   -- the teacher's id
    command    json NOT NULL,
    PRIMARY KEY (session_id, rev)
);

-- +goose Down
DROP TABLE happenings;
ALTER TABLE sessions ADD COLUMN listed boolean NOT NULL DEFAULT false;
