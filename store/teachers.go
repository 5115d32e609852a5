package store

import (
	"context"
	"fmt"

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
}

// AddTeacher stores a new account and sets its id.
func (s *Store) AddTeacher(ctx context.Context, t *Teacher) error {
	t.ID = NewID()
	_, err := s.db.NamedExecContext(ctx, `INSERT INTO teachers (id, email, name, password) VALUES (:id, lower(:email), :name, :password)`, t)
	if err != nil {
		return fmt.Errorf("add teacher: %w", err)
	}
	return nil
}

// TeacherByEmail finds an account.
func (s *Store) TeacherByEmail(ctx context.Context, email string) (Teacher, error) {
	var t Teacher
	return t, s.get(ctx, &t, `SELECT id, email, name, password FROM teachers WHERE email = lower($1)`, email)
}

// TeacherByID finds an account.
func (s *Store) TeacherByID(ctx context.Context, id string) (Teacher, error) {
	var t Teacher
	return t, s.get(ctx, &t, `SELECT id, email, name, password FROM teachers WHERE id = $1`, id)
}

// Class is a class list.
type Class struct {
	ID       string         `db:"id"`
	Name     string         `db:"name"`
	Students JSON[[]string] `db:"students"`
}

// AddClass stores a new class list of a teacher and returns its id.
func (s *Store) AddClass(ctx context.Context, teacher, name string, students []string) (string, error) {
	list, err := asJSON(students)
	if err != nil {
		return "", fmt.Errorf("add class: %w", err)
	}
	id := NewID()
	if _, err := s.db.ExecContext(ctx, `INSERT INTO classes (id, teacher_id, name, students) VALUES ($1, $2, $3, $4)`, id, teacher, name, list); err != nil {
		return "", fmt.Errorf("add class: %w", err)
	}
	return id, nil
}

// Classes lists a teacher's class lists by name.
func (s *Store) Classes(ctx context.Context, teacher string) ([]Class, error) {
	classes := []Class{}
	return classes, s.db.SelectContext(ctx, &classes, `SELECT id, name, students FROM classes WHERE teacher_id = $1 ORDER BY name, id`, teacher)
}
