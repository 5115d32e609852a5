-- +goose Up
-- What teachers think of students' work: one row for each piece and teacher.
CREATE TABLE judgements (
    session_id     uuid NOT NULL REFERENCES sessions ON DELETE CASCADE,
    participant_id uuid NOT NULL REFERENCES participants ON DELETE CASCADE,
    frame          text NOT NULL, -- '' for the whole lesson
    mark           text NOT NULL, -- '' for the whole frame
    by             uuid NOT NULL REFERENCES teachers ON DELETE CASCADE,
    level          json,          -- with its scale as it was
    comment        text NOT NULL,
    at             bigint NOT NULL, -- milliseconds since 1970
    PRIMARY KEY (session_id, participant_id, frame, mark, by)
);
CREATE INDEX judgements_by ON judgements (by, at);
CREATE INDEX judgements_participant ON judgements (participant_id);

-- Whether teachers see what others think of a piece only once they have judged it.
ALTER TABLE sessions ADD COLUMN blind boolean NOT NULL DEFAULT false;
-- When a student was given back what the teacher thinks of their work.
ALTER TABLE participants ADD COLUMN given_at timestamptz;

-- +goose Down
ALTER TABLE participants DROP COLUMN given_at;
ALTER TABLE sessions DROP COLUMN blind;
DROP TABLE judgements;
