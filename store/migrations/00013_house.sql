-- +goose Up

-- A guest has no address and goes after a day. A second factor is a secret that
-- makes time codes (RFC 6238); no code counts twice.
ALTER TABLE teachers
    ALTER COLUMN email DROP NOT NULL,
    ADD COLUMN settings    json NOT NULL DEFAULT '{}', -- settings.Own
    ADD COLUMN second      text, -- the secret, once it was confirmed
    ADD COLUMN second_step bigint NOT NULL DEFAULT 0, -- of the last code that was taken
    ADD COLUMN goes_at     timestamptz; -- when a guest goes
CREATE INDEX teachers_goes ON teachers (goes_at) WHERE goes_at IS NOT NULL;

CREATE TABLE recovery_codes (
    hash       bytea PRIMARY KEY,
    teacher_id uuid NOT NULL REFERENCES teachers ON DELETE CASCADE
);
CREATE INDEX recovery_codes_teacher ON recovery_codes (teacher_id);

-- What administrators decide for all; there is one row.
CREATE TABLE house (
    one      boolean PRIMARY KEY DEFAULT true CHECK (one),
    settings json NOT NULL DEFAULT '{}' -- settings.House
);
INSERT INTO house DEFAULT VALUES;

-- Mail that is to be sent; its text goes when it was.
CREATE TABLE mails (
    id      uuid PRIMARY KEY,
    address text NOT NULL,
    subject text NOT NULL,
    body    text NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now(),
    tries   int NOT NULL DEFAULT 0,
    next_at timestamptz DEFAULT now(), -- null: sent, or given up
    sent_at timestamptz,
    problem text NOT NULL DEFAULT ''
);
CREATE INDEX mails_next ON mails (next_at) WHERE next_at IS NOT NULL;
ALTER TABLE invitations
    ADD COLUMN id      uuid NOT NULL DEFAULT gen_random_uuid(),
    ADD COLUMN mail_id uuid REFERENCES mails ON DELETE SET NULL;

-- Who did what to accounts, classes and records. Nobody changes it; people are named
-- by their ids, so that it says nothing about those who are gone.
CREATE TABLE journal (
    id     bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    at     timestamptz NOT NULL DEFAULT now(),
    by     uuid, -- null: on the machine itself
    what   text NOT NULL,
    about  uuid,
    detail text NOT NULL DEFAULT ''
);
CREATE INDEX journal_at ON journal (at DESC, id DESC);
-- +goose StatementBegin
CREATE FUNCTION journal_stays() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    RAISE EXCEPTION 'the journal is not changed';
END
$$;
-- +goose StatementEnd
CREATE TRIGGER journal_stays BEFORE UPDATE OR DELETE OR TRUNCATE ON journal EXECUTE FUNCTION journal_stays();

-- How long records of a class are kept, in months after the lesson; null as the house says.
ALTER TABLE classes ADD COLUMN keep_months int;
-- The language of a lesson, for its students, and how its front screen looks.
ALTER TABLE sessions ADD COLUMN language text NOT NULL DEFAULT 'en', ADD COLUMN dark boolean NOT NULL DEFAULT false;

-- +goose Down
ALTER TABLE sessions DROP COLUMN language, DROP COLUMN dark;
ALTER TABLE classes DROP COLUMN keep_months;
DROP TABLE journal;
DROP FUNCTION journal_stays;
ALTER TABLE invitations DROP COLUMN id, DROP COLUMN mail_id;
DROP TABLE mails, house, recovery_codes;
DELETE FROM teachers WHERE email IS NULL;
ALTER TABLE teachers DROP COLUMN settings, DROP COLUMN second, DROP COLUMN second_step, DROP COLUMN goes_at,
    ALTER COLUMN email SET NOT NULL;
