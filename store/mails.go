package store

import (
	"context"
	"errors"
	"fmt"
	"time"
)

// Mail is a message that is to be sent.
type Mail struct {
	ID      string `db:"id"`
	To      string `db:"address"`
	Subject string `db:"subject"`
	Body    string `db:"body"`
	Tries   int    `db:"tries"`
}

// AddMail stores a message to be sent, and sets its id.
func (s *Store) AddMail(ctx context.Context, m *Mail) error {
	m.ID = NewID()
	if _, err := s.db.ExecContext(ctx, `
WITH old AS (DELETE FROM mails WHERE made_at < now() - interval '60 days')
INSERT INTO mails (id, address, subject, body) VALUES ($1, $2, $3, $4)`, m.ID, m.To, m.Subject, m.Body); err != nil {
		return fmt.Errorf("add mail: %w", err)
	}
	return nil
}

// DueMail takes a message that is to be sent now, so that nobody else takes it for as
// long as hold; false when there is none.
func (s *Store) DueMail(ctx context.Context, hold time.Duration) (Mail, bool, error) {
	m, err := one[Mail](ctx, s, `UPDATE mails SET next_at = now() + make_interval(secs => $1), tries = tries + 1
		WHERE id = (SELECT id FROM mails WHERE next_at <= now() ORDER BY next_at LIMIT 1 FOR UPDATE SKIP LOCKED)
		RETURNING id, address, subject, body, tries`, hold.Seconds())
	if errors.Is(err, ErrNotFound) {
		return m, false, nil
	}
	return m, err == nil, err
}

// MailSent notes that a message was sent; its text goes.
func (s *Store) MailSent(ctx context.Context, id string) error {
	if _, err := s.db.ExecContext(ctx, `UPDATE mails SET sent_at = now(), next_at = NULL, problem = '', body = ''
		WHERE id = $1`, id); err != nil {
		return fmt.Errorf("mail sent: %w", err)
	}
	return nil
}

// MailFailed notes why a message could not be sent and when it is tried again; the
// zero time for never.
func (s *Store) MailFailed(ctx context.Context, id, problem string, again time.Time) error {
	var next *time.Time
	if !again.IsZero() {
		next = &again
	}
	if _, err := s.db.ExecContext(ctx, `UPDATE mails SET problem = $2, next_at = $3,
		body = CASE WHEN $3::timestamptz IS NULL THEN '' ELSE body END WHERE id = $1`, id, problem, next); err != nil {
		return fmt.Errorf("mail failed: %w", err)
	}
	return nil
}

// Invited is an invitation that is still good, with what has become of its mail.
type Invited struct {
	Invitation
	SentAt  *time.Time `db:"sent_at"`
	Problem *string    `db:"problem"`
	NextAt  *time.Time `db:"next_at"`
}

// Invitations lists the invitations to accounts that are still good, the newest first.
func (s *Store) Invitations(ctx context.Context) ([]Invited, error) {
	return list[Invited](ctx, s, `SELECT i.id, i.mail_id, i.role, i.email, i.teacher_id, NULL::text AS name, i.made_by,
		i.expires_at, m.sent_at, m.problem, m.next_at FROM invitations i LEFT JOIN mails m ON m.id = i.mail_id
		WHERE i.teacher_id IS NULL AND i.used_at IS NULL AND i.expires_at > now() ORDER BY i.made_at DESC`)
}

// Withdraw makes an invitation good no more, and its mail, if it waits, goes too.
func (s *Store) Withdraw(ctx context.Context, id string) error {
	_, err := one[string](ctx, s, `WITH gone AS (DELETE FROM invitations WHERE id = $1 AND used_at IS NULL
			AND teacher_id IS NULL RETURNING id, mail_id),
		unsent AS (DELETE FROM mails m USING gone g WHERE m.id = g.mail_id AND m.sent_at IS NULL)
		SELECT id FROM gone`, id)
	return err
}
