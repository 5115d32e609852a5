-- +goose Up
-- Work is judged by criteria too, and commented with ink and by voice.
ALTER TABLE judgements ADD COLUMN criterion text NOT NULL DEFAULT '', -- '' for all of it
    ADD COLUMN ink json,   -- strokes drawn on the work
    ADD COLUMN voice uuid; -- a recording, kept with the pictures of the lesson
ALTER TABLE judgements DROP CONSTRAINT judgements_pkey;
ALTER TABLE judgements ADD PRIMARY KEY (session_id, participant_id, frame, mark, criterion, by);
CREATE INDEX judgements_voice ON judgements (voice) WHERE voice IS NOT NULL;

-- +goose Down
DELETE FROM judgements WHERE criterion <> '';
ALTER TABLE judgements DROP CONSTRAINT judgements_pkey;
ALTER TABLE judgements ADD PRIMARY KEY (session_id, participant_id, frame, mark, by);
ALTER TABLE judgements DROP COLUMN voice, DROP COLUMN ink, DROP COLUMN criterion;
