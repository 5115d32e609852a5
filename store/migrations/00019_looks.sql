-- +goose Up
-- Links by which anybody looks at chosen work, until they are taken back.
CREATE TABLE looks (
    word       text PRIMARY KEY,
    teacher_id uuid NOT NULL REFERENCES teachers ON DELETE CASCADE,
    session_id uuid REFERENCES sessions ON DELETE CASCADE,
    board_id   uuid REFERENCES boards ON DELETE CASCADE,
    wish       json NOT NULL,
    made_at    timestamptz NOT NULL DEFAULT now(),
    CHECK ((session_id IS NULL) <> (board_id IS NULL))
);
CREATE INDEX looks_session ON looks (session_id) WHERE session_id IS NOT NULL;
CREATE INDEX looks_board ON looks (board_id) WHERE board_id IS NOT NULL;

-- +goose Down
DROP TABLE looks;
