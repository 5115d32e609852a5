package store

import (
	"context"
	"fmt"
	"time"

	"alpenglow/core/account"

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
}

const teacherColumns = `id, email, name, password, role, left_at`

// AddTeacher stores a new account and sets its id.
func (s *Store) AddTeacher(ctx context.Context, t *Teacher) error {
	t.ID = NewID()
	if t.Role == "" {
		t.Role = account.Teacher
	}
	_, err := s.db.NamedExecContext(ctx, `INSERT INTO teachers (id, email, name, password, role)
		VALUES (:id, lower(:email), :name, :password, :role)`, t)
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
