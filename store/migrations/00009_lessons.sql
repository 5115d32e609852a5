-- +goose Up

-- A lesson has a board of its own, with the lesson's id, so that it is changed as any
-- board is. It was a copy that nobody could change; what was used otherwise stood in
-- the state.
ALTER TABLE boards ADD COLUMN session_id uuid UNIQUE REFERENCES sessions (id) ON DELETE CASCADE;
DROP INDEX boards_teacher;
CREATE INDEX boards_teacher ON boards (teacher_id) WHERE session_id IS NULL;
CREATE INDEX boards_lessons ON boards (teacher_id) WHERE session_id IS NOT NULL;

-- +goose StatementBegin
CREATE FUNCTION pg_temp.used(frame jsonb, state jsonb) RETURNS jsonb LANGUAGE sql AS $$
    SELECT CASE WHEN state->'set' ? (frame->>'id') THEN frame - 'replies' || (state->'set'->(frame->>'id')) ELSE frame END
        || coalesce(state->'words'->(frame->>'id'), '{}')
        || CASE WHEN state->'laid' ? (frame->>'id') THEN jsonb_build_object('layout', state->'laid'->(frame->>'id')) ELSE '{}' END
$$;
-- +goose StatementEnd

INSERT INTO boards (id, teacher_id, outline, session_id, changed_at)
SELECT s.id, s.teacher_id, json_build_object('title', s.content->>'title', 'objectives', coalesce(s.content->'objectives', '[]'),
    'dropped', '[]'::json, 'frames', (SELECT json_agg(f->>'id') FROM json_array_elements(s.content->'frames') f)), s.id, s.started_at
FROM sessions s;
INSERT INTO frames (board_id, id, content)
SELECT s.id, f->>'id', pg_temp.used(f::jsonb, s.state::jsonb)::json FROM sessions s, json_array_elements(s.content->'frames') f;
UPDATE sessions SET state = (state::jsonb - 'set' - 'words' - 'laid')::json;
ALTER TABLE sessions DROP COLUMN content;

-- +goose Down
ALTER TABLE sessions ADD COLUMN content json;
UPDATE sessions s SET content = json_build_object('title', b.outline->>'title', 'objectives', b.outline->'objectives', 'frames',
    (SELECT json_agg(f.content) FROM json_array_elements_text(b.outline->'frames') WITH ORDINALITY o(id, n)
        JOIN frames f ON f.board_id = b.id AND f.id = o.id))
FROM boards b WHERE b.session_id = s.id;
ALTER TABLE sessions ALTER COLUMN content SET NOT NULL;
DELETE FROM boards WHERE session_id IS NOT NULL;
DROP INDEX boards_teacher, boards_lessons;
CREATE INDEX boards_teacher ON boards (teacher_id);
ALTER TABLE boards DROP COLUMN session_id;
