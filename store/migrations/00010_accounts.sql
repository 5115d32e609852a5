-- +goose Up

-- An account has a role; whoever has left signs in no more, and keeps what is theirs.
ALTER TABLE teachers
    ADD COLUMN role    text NOT NULL DEFAULT 'teacher',
    ADD COLUMN made_at timestamptz NOT NULL DEFAULT now(),
    ADD COLUMN left_at timestamptz;
-- Until now accounts were made by hand: their owners look after the house.
UPDATE teachers SET role = 'administrator';

-- A link that is good once: for an account, or with teacher_id for a new password.
CREATE TABLE invitations (
    token      bytea PRIMARY KEY, -- SHA-256 of what the link holds
    role       text NOT NULL,
    email      text NOT NULL DEFAULT '', -- whom it is for; empty for whoever has it
    teacher_id uuid REFERENCES teachers ON DELETE CASCADE,
    made_by    uuid REFERENCES teachers ON DELETE CASCADE, -- null: on the machine itself
    made_at    timestamptz NOT NULL DEFAULT now(),
    expires_at timestamptz NOT NULL,
    used_at    timestamptz
);
CREATE INDEX invitations_expiry ON invitations (expires_at);

-- Whose a sign-in is, and on what, so that it can be ended from elsewhere.
DELETE FROM logins;
ALTER TABLE logins
    ADD COLUMN id         uuid NOT NULL DEFAULT gen_random_uuid(),
    ADD COLUMN teacher_id uuid REFERENCES teachers ON DELETE CASCADE,
    ADD COLUMN device     text NOT NULL DEFAULT '',
    ADD COLUMN made_at    timestamptz NOT NULL DEFAULT now();
CREATE INDEX logins_teacher ON logins (teacher_id);

-- +goose Down
ALTER TABLE logins DROP COLUMN id, DROP COLUMN teacher_id, DROP COLUMN device, DROP COLUMN made_at;
DROP TABLE invitations;
ALTER TABLE teachers DROP COLUMN role, DROP COLUMN made_at, DROP COLUMN left_at;
