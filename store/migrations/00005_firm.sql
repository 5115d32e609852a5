-- +goose Up

-- What people wrote long ago may hold NUL as an escape, which PostgreSQL cannot
-- read as text: the boards of a teacher who had one of these could not be listed.
-- +goose StatementBegin
CREATE FUNCTION pg_temp.plain(j text) RETURNS jsonb LANGUAGE sql AS $$
    SELECT regexp_replace(j, '(^|[^\\])((\\\\)*)\\u0000', '\1\2', 'g')::jsonb
$$;
-- +goose StatementEnd

-- How a mark stands was once two fields, hidden and removedBy; it is one now.
-- +goose StatementBegin
CREATE FUNCTION pg_temp.standing(j jsonb) RETURNS jsonb LANGUAGE plpgsql AS $$
DECLARE
    o jsonb;
    was jsonb;
BEGIN
    IF jsonb_typeof(j) = 'array' THEN
        RETURN (SELECT coalesce(jsonb_agg(pg_temp.standing(e) ORDER BY n), '[]') FROM jsonb_array_elements(j) WITH ORDINALITY a(e, n));
    ELSIF jsonb_typeof(j) <> 'object' THEN
        RETURN j;
    END IF;
    o := (SELECT coalesce(jsonb_object_agg(k, pg_temp.standing(v)), '{}') FROM jsonb_each(j) a(k, v));
    IF o->>'hidden' = 'true' THEN
        was := jsonb_build_object('is', 'hidden', 'by', 'staff', 'at', coalesce(o->'at', '0'));
        o := o || jsonb_build_object('standing', was);
    END IF;
    IF o ? 'removedBy' THEN
        o := o || jsonb_build_object('standing', jsonb_strip_nulls(jsonb_build_object('is', 'removed', 'by', o->'removedBy', 'at', coalesce(o->'at', '0'),
            'in', o->'removedIn', 'was', was)));
    END IF;
    IF o ? 'z' THEN
        o := o - 'hidden' - 'removedBy' - 'removedIn';
    END IF;
    RETURN o;
END
$$;
-- +goose StatementEnd

UPDATE boards SET outline = pg_temp.plain(outline::text)::json WHERE outline::text LIKE '%\\u0000%';
UPDATE frames SET content = pg_temp.standing(pg_temp.plain(content::text))::json WHERE content::text ~ 'u0000|removedBy|"hidden"';
UPDATE edits SET change = pg_temp.standing(pg_temp.plain(change::text))::json, back = pg_temp.plain(back::text)::json
WHERE change::text ~ 'u0000|removedBy|"hidden"' OR back::text LIKE '%\\u0000%';
UPDATE templates SET frame = pg_temp.plain(frame::text)::json WHERE frame::text LIKE '%\\u0000%';
UPDATE sessions SET content = pg_temp.plain(content::text)::json WHERE content::text LIKE '%\\u0000%';
UPDATE marks SET mark = pg_temp.standing(pg_temp.plain(mark::text))::json WHERE mark::text ~ 'u0000|removedBy|"hidden"';
UPDATE log SET change = pg_temp.standing(pg_temp.plain(change::text))::json WHERE change::text ~ 'u0000|removedBy|"hidden"';

-- seq is the number of the change that changed a mark last; what was changed
-- before this is taken for changed just now.
ALTER TABLE marks ADD COLUMN seq bigint NOT NULL DEFAULT 0, ADD COLUMN removed boolean NOT NULL DEFAULT false;
UPDATE marks m SET seq = s.seq, removed = coalesce(m.mark->'standing'->>'is' = 'removed', false) FROM sheets s WHERE s.id = m.sheet_id;
CREATE INDEX marks_removed ON marks (sheet_id, seq DESC) WHERE removed;

-- terms counts the changes of what operations depend on, people those who have
-- joined; title is the board's, so that a list need not read the board.
ALTER TABLE sessions
    ADD COLUMN terms  bigint NOT NULL DEFAULT 0,
    ADD COLUMN people int NOT NULL DEFAULT 0,
    ADD COLUMN title  text NOT NULL DEFAULT '';
UPDATE sessions s SET title = content->>'title', people = (SELECT count(*) FROM participants p WHERE p.session_id = s.id),
    terms = rev, state = (state::jsonb || jsonb_build_object('terms', rev))::json;
CREATE INDEX sessions_board ON sessions (board_id);
CREATE INDEX sessions_practice ON sessions (started_at) WHERE practice;
CREATE INDEX pictures_teacher ON pictures (teacher_id);
CREATE INDEX pictures_used ON pictures (used_at DESC, id) WHERE session_id IS NULL;

-- What an author has on a sheet, and when they last did something there.
CREATE TABLE activity (
    sheet_id uuid NOT NULL,
    author   text NOT NULL,
    marks    int NOT NULL,
    at       bigint NOT NULL, -- milliseconds since 1970; 0 when somebody else changed the amount
    PRIMARY KEY (sheet_id, author)
) WITH (fillfactor = 70);
INSERT INTO activity (sheet_id, author, marks, at)
SELECT coalesce(l.sheet_id, m.sheet_id), coalesce(l.author, m.author), coalesce(m.n, 0), coalesce(l.at, 0)
FROM (SELECT sheet_id, author, max(at) AS at FROM log GROUP BY sheet_id, author) l
FULL JOIN (SELECT sheet_id, mark->>'author' AS author, count(*) AS n FROM marks WHERE NOT removed AND mark->>'author' IS NOT NULL GROUP BY 1, 2) m
    ON m.sheet_id = l.sheet_id AND m.author = l.author;

-- A student of a class is one person over the year.
CREATE TABLE students (
    id       uuid PRIMARY KEY,
    class_id uuid NOT NULL REFERENCES classes ON DELETE CASCADE,
    name     text NOT NULL,
    place    int NOT NULL -- in the order of the list
);
CREATE INDEX students_class ON students (class_id, place);
INSERT INTO students (id, class_id, name, place)
SELECT gen_random_uuid(), c.id, n.name, n.place FROM classes c, json_array_elements_text(c.students) WITH ORDINALITY n(name, place);
ALTER TABLE classes DROP COLUMN students;
ALTER TABLE sessions ADD COLUMN class_id uuid REFERENCES classes ON DELETE SET NULL;
UPDATE sessions s SET class_id = (SELECT c.id FROM classes c WHERE c.teacher_id = s.teacher_id AND c.name = s.class_name ORDER BY c.id LIMIT 1)
WHERE class_name <> '';
CREATE INDEX sessions_class ON sessions (class_id);
ALTER TABLE participants ADD COLUMN student_id uuid REFERENCES students ON DELETE SET NULL;
UPDATE participants p SET student_id = (SELECT t.id FROM students t WHERE t.class_id = s.class_id AND t.name = p.name ORDER BY t.place LIMIT 1)
FROM sessions s WHERE s.id = p.session_id;
CREATE INDEX participants_student ON participants (student_id);

-- +goose Down
ALTER TABLE participants DROP COLUMN student_id;
ALTER TABLE sessions DROP COLUMN class_id;
ALTER TABLE classes ADD COLUMN students json;
UPDATE classes c SET students = (SELECT coalesce(json_agg(t.name ORDER BY t.place), '[]') FROM students t WHERE t.class_id = c.id);
ALTER TABLE classes ALTER COLUMN students SET NOT NULL;
DROP TABLE students, activity;
DROP INDEX pictures_used, pictures_teacher, sessions_practice, sessions_board, marks_removed;
ALTER TABLE sessions DROP COLUMN terms, DROP COLUMN people, DROP COLUMN title;
ALTER TABLE marks DROP COLUMN seq, DROP COLUMN removed;
