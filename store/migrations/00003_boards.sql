-- +goose Up
-- A board in the making is an outline and its frames, each a row, so that a
-- change of one frame writes that frame alone.
ALTER TABLE boards
    ADD COLUMN outline     json,
    ADD COLUMN rev         bigint NOT NULL DEFAULT 0,
    ADD COLUMN folder      text NOT NULL DEFAULT '',
    ADD COLUMN opened_at   timestamptz,
    ADD COLUMN archived_at timestamptz,
    ADD COLUMN deleted_at  timestamptz,
    ADD COLUMN share       text UNIQUE; -- what a link to a copy holds

CREATE TABLE frames (
    board_id uuid NOT NULL REFERENCES boards ON DELETE CASCADE,
    id       text NOT NULL,
    content  json NOT NULL, -- with the marks that were removed
    PRIMARY KEY (board_id, id)
);

-- What was prepared was once called fixed; pieces came later.
INSERT INTO frames (board_id, id, content)
SELECT b.id, f->>'id', replace(f::text, '"fixed":', '"prepared":')::json FROM boards b, json_array_elements(b.content->'frames') f;
UPDATE boards b SET outline = json_build_object('title', b.content->>'title', 'objectives', '[]'::json, 'dropped', '[]'::json,
    'frames', (SELECT json_agg(f->>'id') FROM json_array_elements(b.content->'frames') f));
UPDATE sessions SET content = replace(content::text, '"fixed":', '"prepared":')::json;
ALTER TABLE boards ALTER COLUMN outline SET NOT NULL, DROP COLUMN content;

-- The history of a board, numbered without holes.
CREATE TABLE edits (
    board_id uuid NOT NULL REFERENCES boards ON DELETE CASCADE,
    rev      bigint NOT NULL,
    op_id    uuid NOT NULL,
    change   json NOT NULL,
    back     json NOT NULL,
    PRIMARY KEY (board_id, rev),
    UNIQUE (board_id, op_id)
);

CREATE TABLE templates (
    id         uuid PRIMARY KEY,
    teacher_id uuid NOT NULL REFERENCES teachers ON DELETE CASCADE,
    name       text NOT NULL,
    frame      json NOT NULL,
    made_at    timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX templates_teacher ON templates (teacher_id);

-- A picture belongs to a session, or to the school's library.
ALTER TABLE pictures
    ALTER COLUMN session_id DROP NOT NULL,
    ADD COLUMN teacher_id uuid REFERENCES teachers ON DELETE SET NULL,
    ADD COLUMN name text NOT NULL DEFAULT '',
    ADD COLUMN hash bytea,
    ADD COLUMN used_at timestamptz NOT NULL DEFAULT now();
CREATE UNIQUE INDEX pictures_library ON pictures (hash) WHERE session_id IS NULL;

-- A rehearsal is marked as one, and how its students get their names.
ALTER TABLE sessions
    ADD COLUMN practice boolean NOT NULL DEFAULT false,
    ADD COLUMN listed   boolean NOT NULL DEFAULT false;

-- +goose Down
ALTER TABLE sessions DROP COLUMN practice, DROP COLUMN listed;
DROP INDEX pictures_library;
DELETE FROM pictures WHERE session_id IS NULL;
ALTER TABLE pictures ALTER COLUMN session_id SET NOT NULL, DROP COLUMN teacher_id, DROP COLUMN name, DROP COLUMN hash, DROP COLUMN used_at;
DROP TABLE templates, edits;
ALTER TABLE boards ADD COLUMN content json;
UPDATE boards b SET content = json_build_object('title', b.outline->>'title', 'frames',
    (SELECT json_agg(f.content) FROM json_array_elements_text(b.outline->'frames') WITH ORDINALITY o(id, n) JOIN frames f ON f.board_id = b.id AND f.id = o.id));
ALTER TABLE boards ALTER COLUMN content SET NOT NULL, DROP COLUMN outline, DROP COLUMN rev, DROP COLUMN folder, DROP COLUMN opened_at,
    DROP COLUMN archived_at, DROP COLUMN deleted_at, DROP COLUMN share;
DROP TABLE frames;
