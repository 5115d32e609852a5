package store

import (
	"context"
	"time"

	"github.com/jmoiron/sqlx"
)

// SetPassword gives an account another password and ends its sign-ins, all but the
// one with a token's hash; it gives the hashes of the others. Links to a new password
// that are still about are good no more.
func (s *Store) SetPassword(ctx context.Context, teacher, password, but string) (out []string, err error) {
	err = s.within(ctx, func(tx *sqlx.Tx) error {
		if out, err = signOut(ctx, tx, teacher, but); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `WITH links AS (DELETE FROM invitations WHERE teacher_id = $1 AND used_at IS NULL)
			UPDATE teachers SET password = $2 WHERE id = $1`, teacher, password)
		return err
	})
	return out, err
}

// SignOutOthers ends the sign-ins of an account but one, and gives their tokens' hashes.
func (s *Store) SignOutOthers(ctx context.Context, teacher, but string) (out []string, err error) {
	err = s.within(ctx, func(tx *sqlx.Tx) error {
		out, err = signOut(ctx, tx, teacher, but)
		return err
	})
	return out, err
}

// SignedIn is a sign-in of somebody of the staff.
type SignedIn struct {
	ID     string    `db:"id"`
	Token  string    `db:"token"` // hashed
	Device string    `db:"device"`
	MadeAt time.Time `db:"made_at"`
}

// NoteLogin notes whose a sign-in is, by its token's hash, and on what device. It
// says ErrNotFound when the account has been left meanwhile.
func (s *Store) NoteLogin(ctx context.Context, token, teacher, device string) error {
	_, err := one[string](ctx, s, `UPDATE logins SET teacher_id = t.id, device = $3 FROM teachers t
		WHERE token = $1 AND t.id = $2 AND t.left_at IS NULL RETURNING token`, token, teacher, device)
	return err
}

// SignIns lists the sign-ins of an account, the last one first.
func (s *Store) SignIns(ctx context.Context, teacher string) ([]SignedIn, error) {
	return list[SignedIn](
		ctx,
		s,
		`SELECT id, token, device, made_at FROM logins WHERE teacher_id = $1 AND expiry > now()
		ORDER BY made_at DESC, id`,
		teacher,
	)
}

// EndSignIn ends one sign-in of an account and gives its token's hash.
func (s *Store) EndSignIn(ctx context.Context, teacher, id string) (string, error) {
	return one[string](ctx, s, `DELETE FROM logins WHERE teacher_id = $1 AND id = $2 RETURNING token`, teacher, id)
}

// signOut ends the sign-ins of an account, all but one, and gives their tokens' hashes.
func signOut(ctx context.Context, tx *sqlx.Tx, teacher, but string) ([]string, error) {
	var out []string
	err := tx.SelectContext(ctx, &out, `DELETE FROM logins WHERE teacher_id = $1 AND token <> $2 RETURNING token`,
		teacher, but)
	return out, err
}

// SetSecond gives an account a second factor, with the hashes of its recovery codes, or
// takes it away with nil; its other sign-ins end, of which it gives the tokens' hashes.
func (s *Store) SetSecond(ctx context.Context, teacher string, secret *string, step int64, recovery [][]byte,
	but string) (out []string, err error) {
	err = s.within(ctx, func(tx *sqlx.Tx) error {
		if out, err = signOut(ctx, tx, teacher, but); err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `UPDATE teachers SET second = $2, second_step = $3 WHERE id = $1`, teacher,
			secret,
			step); err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `DELETE FROM recovery_codes WHERE teacher_id = $1`, teacher); err != nil {
			return err
		}
		_, err = tx.ExecContext(
			ctx,
			`INSERT INTO recovery_codes (hash, teacher_id) SELECT h, $1 FROM unnest($2::bytea[]) h`,
			teacher,
			recovery,
		)
		return err
	})
	return out, err
}

// TakeStep notes the step of a time code that was right, and reports whether it may
// count: not when one of it or a later one has been taken meanwhile.
func (s *Store) TakeStep(ctx context.Context, teacher string, step int64) (bool, error) {
	return s.did(ctx, `UPDATE teachers SET second_step = $2 WHERE id = $1 AND second_step < $2`, teacher, step)
}

// TakeRecovery uses a recovery code up, by its hash, and reports whether there was one.
func (s *Store) TakeRecovery(ctx context.Context, teacher string, hash []byte) (bool, error) {
	return s.did(ctx, `DELETE FROM recovery_codes WHERE teacher_id = $1 AND hash = $2`, teacher, hash)
}

// RecoveryLeft counts the recovery codes that an account has.
func (s *Store) RecoveryLeft(ctx context.Context, teacher string) (int, error) {
	return one[int](ctx, s, `SELECT count(*) FROM recovery_codes WHERE teacher_id = $1`, teacher)
}

// did reports whether a statement changed a row.
func (s *Store) did(ctx context.Context, query string, args ...any) (bool, error) {
	result, err := s.db.ExecContext(ctx, query, args...)
	if err != nil {
		return false, err
	}
	n, err := result.RowsAffected()
	return n > 0, err
}
