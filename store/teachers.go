package store

import (
	"context"
	"encoding/json"
	"fmt"
	"time"

	"alpenglow/core/account"
	"alpenglow/core/settings"

	"github.com/google/uuid"
)

// NewID makes an id for a row; ids made later sort later.
func NewID() string { return uuid.Must(uuid.NewV7()).String() }

// Teacher is an account.
type Teacher struct {
	ID       string `db:"id"`
	Email    string `db:"email"`
	Name     string `db:"name"`
	Password string `db:"password"` // argon2id hash
	// Role is what they may do; left out when an account is added, a teacher.
	Role account.Role `db:"role"`
	// LeftAt is when they left; they sign in no more.
	LeftAt *time.Time `db:"left_at"`
	// Second is the secret of their second factor, SecondStep that of the last code.
	Second     *string `db:"second"`
	SecondStep int64   `db:"second_step"`
	// GoesAt is when a guest goes; a guest has no address.
	GoesAt *time.Time `db:"goes_at"`
	// Settings are as they were saved; see Own.
	Settings string `db:"settings"`
}

const teacherColumns = `id, coalesce(email, '') AS email, name, password, role, left_at, second, second_step, goes_at,
	settings`

// SignIn says what a signed-in account may do: whether it is a guest's, and whether
// it has to set up a second factor first.
type SignIn struct {
	Guest bool `db:"guest"`
	Held  bool `db:"held"`
}

// SignInOf reads it. It says ErrNotFound for an account that is gone, or was left.
func (s *Store) SignInOf(ctx context.Context, teacher string) (SignIn, error) {
	return one[SignIn](ctx, s, `SELECT goes_at IS NOT NULL AS guest, goes_at IS NULL AND second IS NULL
			AND coalesce((h.settings->>'secondFactor')::bool, false) AS held
		FROM teachers, house h WHERE id = $1 AND left_at IS NULL AND (goes_at IS NULL OR goes_at > now())`, teacher)
}

// Own gives the teacher's settings; what was never chosen is as usual.
func (t Teacher) Own() settings.Own {
	own := settings.Usual()
	if err := json.Unmarshal([]byte(t.Settings), &own); err != nil || own.Check() != nil {
		return settings.Usual()
	}
	return own
}

// SetOwn saves a teacher's settings.
func (s *Store) SetOwn(ctx context.Context, teacher string, own settings.Own) error {
	text, err := asJSON(own)
	if err == nil {
		_, err = s.db.ExecContext(ctx, `UPDATE teachers SET settings = $2 WHERE id = $1`, teacher, text)
	}
	if err != nil {
		return fmt.Errorf("set settings: %w", err)
	}
	return nil
}

// AddTeacher stores a new account and sets its id.
func (s *Store) AddTeacher(ctx context.Context, t *Teacher) error {
	t.ID = NewID()
	if t.Role == "" {
		t.Role = account.Teacher
	}
	_, err := s.db.NamedExecContext(ctx, `INSERT INTO teachers (id, email, name, password, role)
		VALUES (:id, nullif(lower(:email), ''), :name, :password, :role)`, t)
	if err != nil {
		return fmt.Errorf("add teacher: %w", err)
	}
	return nil
}

// TeacherByEmail finds an account.
func (s *Store) TeacherByEmail(ctx context.Context, email string) (Teacher, error) {
	return one[Teacher](ctx, s, `SELECT `+teacherColumns+` FROM teachers WHERE email = lower($1)`, email)
}

// TeacherByID finds an account.
func (s *Store) TeacherByID(ctx context.Context, id string) (Teacher, error) {
	return one[Teacher](ctx, s, `SELECT `+teacherColumns+` FROM teachers WHERE id = $1`, id)
}

// SetName changes what somebody of the staff is called.
func (s *Store) SetName(ctx context.Context, teacher, name string) error {
	if _, err := s.db.ExecContext(ctx, `UPDATE teachers SET name = $2 WHERE id = $1`, teacher, name); err != nil {
		return fmt.Errorf("set name: %w", err)
	}
	return nil
}
