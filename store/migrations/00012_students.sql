-- +goose Up

-- Those who teach a class together see the same lessons and records.
CREATE TABLE class_teachers (
    class_id   uuid NOT NULL REFERENCES classes ON DELETE CASCADE,
    teacher_id uuid NOT NULL REFERENCES teachers ON DELETE CASCADE,
    PRIMARY KEY (class_id, teacher_id)
);
CREATE INDEX class_teachers_teacher ON class_teachers (teacher_id);
INSERT INTO class_teachers (class_id, teacher_id) SELECT id, teacher_id FROM classes;
ALTER TABLE classes
    DROP COLUMN teacher_id,
    ADD COLUMN plan        json NOT NULL DEFAULT '{"sets":[],"apart":[],"seats":{"rows":0,"columns":0,"at":[]}}', -- roster.Plan
    ADD COLUMN register_id text; -- what the school's register calls it

-- Who may lead a session and read its record.
CREATE VIEW leads AS
    SELECT id AS session_id, teacher_id FROM sessions
    UNION
    SELECT s.id, t.teacher_id FROM sessions s JOIN class_teachers t ON t.class_id = s.class_id WHERE NOT s.practice;

-- A person stays one from class to class and from year to year; a student is that
-- person in one class.
ALTER TABLE students
    ADD COLUMN person      uuid NOT NULL DEFAULT gen_random_uuid(),
    ADD COLUMN register_id text;
CREATE INDEX students_person ON students (person);

-- A card with a code of one's own, by which a person is themselves on any device.
CREATE TABLE cards (
    person  uuid PRIMARY KEY,
    code    text NOT NULL UNIQUE,
    made_at timestamptz NOT NULL DEFAULT now()
);

-- The tokens of the devices on which a participant is there.
CREATE TABLE passes (
    token          bytea PRIMARY KEY, -- SHA-256 of the token in the cookie
    participant_id uuid NOT NULL REFERENCES participants ON DELETE CASCADE,
    card           boolean NOT NULL DEFAULT false, -- came in with the card
    made_at        timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX passes_participant ON passes (participant_id);
INSERT INTO passes (token, participant_id, made_at) SELECT token, id, joined_at FROM participants
    WHERE left(encode(token, 'escape'), 5) <> 'left ';
ALTER TABLE participants DROP COLUMN token;

-- A session's list says which student each name is, and what its class was like.
ALTER TABLE sessions ADD COLUMN plan json NOT NULL DEFAULT '{"sets":[],"apart":[],"seats":{"rows":0,"columns":0,"at":[]}}';
UPDATE sessions s SET students = (
    SELECT coalesce(json_agg(json_build_object('name', n.name, 'id', coalesce(
        (SELECT t.id::text FROM students t WHERE t.class_id = s.class_id AND t.name = n.name ORDER BY t.place LIMIT 1), '')) ORDER BY n.place), '[]')
    FROM json_array_elements_text(s.students) WITH ORDINALITY n(name, place));

-- +goose Down
UPDATE sessions s SET students = (SELECT coalesce(json_agg(n.one->>'name' ORDER BY n.place), '[]')
    FROM json_array_elements(s.students) WITH ORDINALITY n(one, place));
ALTER TABLE sessions DROP COLUMN plan;
ALTER TABLE participants ADD COLUMN token bytea;
UPDATE participants p SET token = coalesce((SELECT token FROM passes WHERE participant_id = p.id ORDER BY made_at LIMIT 1), convert_to('left ' || id, 'UTF8'));
ALTER TABLE participants ALTER COLUMN token SET NOT NULL;
ALTER TABLE participants ADD CONSTRAINT participants_token_key UNIQUE (token);
DROP TABLE passes, cards;
ALTER TABLE students DROP COLUMN person, DROP COLUMN register_id;
DROP VIEW leads;
ALTER TABLE classes ADD COLUMN teacher_id uuid REFERENCES teachers ON DELETE CASCADE;
UPDATE classes c SET teacher_id = (SELECT teacher_id FROM class_teachers WHERE class_id = c.id ORDER BY teacher_id LIMIT 1);
DELETE FROM classes WHERE teacher_id IS NULL;
ALTER TABLE classes ALTER COLUMN teacher_id SET NOT NULL, DROP COLUMN plan, DROP COLUMN register_id;
CREATE INDEX classes_teacher ON classes (teacher_id);
DROP TABLE class_teachers;
