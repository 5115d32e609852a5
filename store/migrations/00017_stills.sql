-- +goose Up
-- Moments of lessons that were given a name.
CREATE TABLE stills (
    id         uuid PRIMARY KEY,
    session_id uuid NOT NULL REFERENCES sessions ON DELETE CASCADE,
    name       text NOT NULL,
    at         bigint NOT NULL -- milliseconds since 1970
);
CREATE INDEX stills_session ON stills (session_id, at);

-- +goose Down
DROP TABLE stills;
