-- +goose Up

-- Devices that are front screens: each waits with a code until a teacher lets it
-- show a lesson.
CREATE TABLE fronts (
    id uuid PRIMARY KEY,
    code text NOT NULL,
    token bytea NOT NULL UNIQUE,
    session_id uuid REFERENCES sessions (id) ON DELETE CASCADE,
    made_at timestamptz NOT NULL DEFAULT now()
);
CREATE UNIQUE INDEX fronts_code ON fronts (code) WHERE session_id IS NULL;
CREATE INDEX fronts_session ON fronts (session_id);
CREATE INDEX fronts_made ON fronts (made_at);

-- +goose Down
DROP TABLE fronts;
