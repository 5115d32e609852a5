-- +goose Up
CREATE TABLE pictures (
    id         uuid PRIMARY KEY,
    session_id uuid NOT NULL REFERENCES sessions ON DELETE CASCADE,
    author     text NOT NULL,
    type       text NOT NULL,
    width      int NOT NULL,
    height     int NOT NULL,
    data       bytea NOT NULL
);
CREATE INDEX pictures_session ON pictures (session_id);

-- +goose Down
DROP TABLE pictures;
