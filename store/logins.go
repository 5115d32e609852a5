package store

import (
	"context"
	"errors"
	"time"
)

// Logins keeps teachers' sign-ins for scs. It is an scs.CtxStore.
type Logins struct{ *Store }

var errNoContext = errors.New("logins need a context")

// FindCtx reads a sign-in that has not expired.
func (l Logins) FindCtx(ctx context.Context, token string) ([]byte, bool, error) {
	var data []byte
	err := l.get(ctx, &data, `SELECT data FROM logins WHERE token = $1 AND expiry > now()`, token)
	if errors.Is(err, ErrNotFound) {
		return nil, false, nil
	}
	return data, err == nil, err
}

// CommitCtx stores a sign-in and forgets those that have expired.
func (l Logins) CommitCtx(ctx context.Context, token string, data []byte, expiry time.Time) error {
	_, err := l.db.ExecContext(ctx, `
		WITH old AS (DELETE FROM logins WHERE expiry < now() AND token <> $1)
		INSERT INTO logins (token, data, expiry) VALUES ($1, $2, $3)
		ON CONFLICT (token) DO UPDATE SET data = excluded.data, expiry = excluded.expiry`, token, data, expiry)
	return err
}

// DeleteCtx removes a sign-in.
func (l Logins) DeleteCtx(ctx context.Context, token string) error {
	_, err := l.db.ExecContext(ctx, `DELETE FROM logins WHERE token = $1`, token)
	return err
}

// Find, Commit and Delete complete scs.Store; scs calls those with a context.

// Find is never called.
func (Logins) Find(string) ([]byte, bool, error) { return nil, false, errNoContext }

// Commit is never called.
func (Logins) Commit(string, []byte, time.Time) error { return errNoContext }

// Delete is never called.
func (Logins) Delete(string) error { return errNoContext }
