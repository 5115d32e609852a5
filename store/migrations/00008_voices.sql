-- +goose Up

-- What a class says beside its work: questions, who needs help, who is done. It has
-- a row of its own, so that it never holds up what is saved of the work.
CREATE TABLE voices (
    session_id uuid PRIMARY KEY REFERENCES sessions (id) ON DELETE CASCADE,
    rev bigint NOT NULL,
    said json NOT NULL
);

-- +goose Down
DROP TABLE voices;
