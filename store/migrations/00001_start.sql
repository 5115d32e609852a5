-- +goose Up
CREATE TABLE teachers (
    id       uuid PRIMARY KEY,
    email    text NOT NULL UNIQUE,
    name     text NOT NULL,
    password text NOT NULL -- argon2id
);

CREATE TABLE logins (
    token  text PRIMARY KEY, -- hashed
    data   bytea NOT NULL,
    expiry timestamptz NOT NULL
);
CREATE INDEX logins_expiry ON logins (expiry);

CREATE TABLE classes (
    id         uuid PRIMARY KEY,
    teacher_id uuid NOT NULL REFERENCES teachers ON DELETE CASCADE,
    name       text NOT NULL,
    students   json NOT NULL -- names in the order of the list
);
CREATE INDEX classes_teacher ON classes (teacher_id);

CREATE TABLE boards (
    id         uuid PRIMARY KEY,
    teacher_id uuid NOT NULL REFERENCES teachers ON DELETE CASCADE,
    content    json NOT NULL,
    changed_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX boards_teacher ON boards (teacher_id);

-- A session holds its own copy of the board. rev counts the changes of state.
CREATE TABLE sessions (
    id         uuid PRIMARY KEY,
    teacher_id uuid NOT NULL REFERENCES teachers ON DELETE CASCADE,
    board_id   uuid REFERENCES boards ON DELETE SET NULL,
    class_name text NOT NULL DEFAULT '',
    students   json NOT NULL DEFAULT '[]',
    code       text NOT NULL,
    content    json NOT NULL,
    state      json NOT NULL,
    rev        bigint NOT NULL,
    started_at timestamptz NOT NULL DEFAULT now(),
    ended_at   timestamptz
);
-- A code is valid for one session at a time, and free again when it has ended.
CREATE UNIQUE INDEX sessions_live_code ON sessions (code) WHERE ended_at IS NULL;
CREATE INDEX sessions_teacher ON sessions (teacher_id, started_at DESC);

CREATE TABLE participants (
    id         uuid PRIMARY KEY,
    session_id uuid NOT NULL REFERENCES sessions ON DELETE CASCADE,
    name       text NOT NULL,
    token      bytea NOT NULL UNIQUE, -- SHA-256 of the token in the cookie
    joined_at  timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX participants_session ON participants (session_id);

CREATE TABLE sheets (
    id         uuid PRIMARY KEY,
    session_id uuid NOT NULL REFERENCES sessions ON DELETE CASCADE,
    frame_id   text NOT NULL,
    owner      text NOT NULL, -- 'class' or a participant's id
    seq        bigint NOT NULL DEFAULT 0,
    UNIQUE (session_id, frame_id, owner)
) WITH (fillfactor = 70); -- room for the many updates of seq in place

-- The history of each sheet, numbered without holes. Neither log nor marks
-- refers to sheets by a foreign key: rows are written only together with the
-- sheet's number (store/commit.go), and checking each again halves the rate.
CREATE TABLE log (
    sheet_id uuid NOT NULL,
    seq      bigint NOT NULL,
    op_id    uuid NOT NULL,
    author   text NOT NULL,
    at       bigint NOT NULL, -- milliseconds since 1970
    change   json NOT NULL,
    PRIMARY KEY (sheet_id, seq),
    UNIQUE (sheet_id, op_id)
);

-- The last state of each mark.
CREATE TABLE marks (
    sheet_id uuid NOT NULL,
    id       text NOT NULL,
    mark     json NOT NULL,
    PRIMARY KEY (sheet_id, id)
);

-- +goose Down
DROP TABLE marks, log, sheets, participants, sessions, boards, classes, logins, teachers;
