package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"time"

	"alpenglow/core/account"

	"github.com/jackc/pgx/v5/pgconn"
	"github.com/jmoiron/sqlx"
)

// ErrLast says that there would be no administrator any more.
var ErrLast = errors.New("last administrator")

// Invitation is a link that is good once: it makes an account, or with Teacher
// gives that one a new password. Mail is what brings it, if anything does.
type Invitation struct {
	ID      string       `db:"id"`
	Mail    *string      `db:"mail_id"`
	Role    account.Role `db:"role"`
	Email   string       `db:"email"`
	Teacher *string      `db:"teacher_id"`
	Name    *string      `db:"name"`
	MadeBy  *string      `db:"made_by"`
	Expires time.Time    `db:"expires_at"`
}

// AddInvitation stores one under the hash of what the link holds, and forgets those
// that have been too old for a month.
func (s *Store) AddInvitation(ctx context.Context, token []byte, i Invitation) error {
	if _, err := s.db.ExecContext(ctx, `
WITH old AS (DELETE FROM invitations WHERE expires_at < now() - interval '30 days')
INSERT INTO invitations (token, role, email, teacher_id, made_by, expires_at, mail_id) VALUES ($1, $2, $3, $4, $5, $6, $7)`,
		token, i.Role, i.Email, i.Teacher, i.MadeBy, i.Expires, i.Mail); err != nil {
		return fmt.Errorf("add invitation: %w", err)
	}
	return nil
}

// Invitation finds one that is still good.
func (s *Store) Invitation(ctx context.Context, token []byte) (Invitation, error) {
	return one[Invitation](
		ctx,
		s,
		`SELECT i.id, i.mail_id, i.role, coalesce(t.email, i.email) AS email, i.teacher_id, t.name,
		i.made_by, i.expires_at FROM invitations i LEFT JOIN teachers t ON t.id = i.teacher_id
		WHERE i.token = $1 AND i.used_at IS NULL AND i.expires_at > now()`,
		token,
	)
}

// Accept takes an invitation: it is used up, and the account made, or given its new
// password and signed out everywhere; the sign-ins that ended are given by their
// tokens' hashes. It says ErrNotFound when the link is not good any more, and
// ErrTaken, using nothing up, when the address has an account.
func (s *Store) Accept(ctx context.Context, token []byte, t *Teacher) (out []string, err error) {
	err = s.within(ctx, func(tx *sqlx.Tx) error {
		var taken struct {
			Role    account.Role `db:"role"`
			Teacher *string      `db:"teacher_id"`
		}
		err := tx.GetContext(ctx, &taken, `UPDATE invitations SET used_at = now()
			WHERE token = $1 AND used_at IS NULL AND expires_at > now() RETURNING role, teacher_id`, token)
		if err != nil {
			return none(err)
		}
		if taken.Teacher != nil {
			t.ID = *taken.Teacher
			out, err = signOut(ctx, tx, t.ID, "")
			if err == nil {
				_, err = tx.ExecContext(ctx, `UPDATE teachers SET password = $2 WHERE id = $1`, t.ID, t.Password)
			}
			return err
		}
		t.ID, t.Role = NewID(), taken.Role
		_, err = tx.ExecContext(
			ctx,
			`INSERT INTO teachers (id, email, name, password, role) VALUES ($1, $2, $3, $4, $5)`,
			t.ID,
			t.Email,
			t.Name,
			t.Password,
			t.Role,
		)
		return err
	})
	return out, taken(err)
}

// taken says ErrTaken where an address has an account already.
func taken(err error) error {
	if twice := new(pgconn.PgError); errors.As(err, &twice) && twice.ConstraintName == "teachers_email_key" {
		return ErrTaken
	}
	return err
}

// Staff lists all accounts by name; guests are not among them.
func (s *Store) Staff(ctx context.Context) ([]Teacher, error) {
	return list[Teacher](
		ctx,
		s,
		`SELECT `+teacherColumns+` FROM teachers WHERE goes_at IS NULL ORDER BY left_at IS NOT NULL, lower(name), id`,
	)
}

// NoStaff reports whether there is no account yet.
func (s *Store) NoStaff(ctx context.Context) (bool, error) {
	return one[bool](ctx, s, `SELECT NOT EXISTS (SELECT 1 FROM teachers WHERE goes_at IS NULL)`)
}

// Standing is what an administrator may change about an account; what is nil stays.
type Standing struct {
	Role *account.Role
	Left *bool
}

// SetStanding changes it; whoever leaves is signed out everywhere, of which sign-ins
// it gives the tokens' hashes, and the links that they have made, and those for them,
// are good no more; so are those of somebody who is no administrator any more. It says
// ErrLast, and changes nothing, when no administrator would be left.
func (s *Store) SetStanding(ctx context.Context, teacher string, to Standing) (out []string, err error) {
	err = s.within(ctx, func(tx *sqlx.Tx) error {
		// Two administrators who demote each other wait for one another.
		var admins []string
		if err := tx.SelectContext(ctx, &admins, `SELECT id FROM teachers WHERE role = $1 AND left_at IS NULL
			ORDER BY id FOR UPDATE`, account.Administrator); err != nil {
			return fmt.Errorf("set standing: %w", err)
		}
		var now Teacher
		err := tx.GetContext(ctx, &now, `UPDATE teachers SET role = coalesce($2, role),
			left_at = CASE WHEN $3::bool IS NULL THEN left_at WHEN $3 THEN coalesce(left_at, now()) END
			WHERE id = $1 RETURNING `+teacherColumns, teacher, to.Role, to.Left)
		if errors.Is(err, sql.ErrNoRows) {
			return ErrNotFound
		}
		if err != nil {
			return fmt.Errorf("set standing: %w", err)
		}
		if len(admins) == 1 && admins[0] == teacher && (now.Role != account.Administrator || now.LeftAt != nil) {
			return ErrLast
		}
		if now.LeftAt != nil {
			out, err = signOut(ctx, tx, teacher, "")
		}
		// Who looks after the accounts no more leaves no links behind.
		if err == nil && (now.LeftAt != nil || now.Role != account.Administrator) {
			_, err = tx.ExecContext(ctx, `DELETE FROM invitations WHERE used_at IS NULL AND (made_by = $1
				OR teacher_id = $1 AND $2)`, teacher, now.LeftAt != nil)
		}
		return err
	})
	return out, err
}
