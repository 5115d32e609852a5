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

// Class is a class with its students.
type Class struct {
	ID       string          `db:"id"`
	Name     string          `db:"name"`
	Students JSON[[]Student] `db:"students"`
}

// Student is one person of a class over the year.
type Student struct {
	ID   string `json:"id"`
	Name string `json:"name"`
}

// Names lists the names of the students in the order of the list.
func (c Class) Names() []string {
	names := make([]string, len(c.Students.V))
	for i, s := range c.Students.V {
		names[i] = s.Name
	}
	return names
}

// AddClass stores a new class of a teacher and returns its id.
func (s *Store) AddClass(ctx context.Context, teacher, name string, students []string) (string, error) {
	id, ids := NewID(), make([]string, len(students))
	for i := range ids {
		ids[i] = NewID()
	}
	_, err := s.db.ExecContext(ctx, `
WITH class AS (INSERT INTO classes (id, teacher_id, name) VALUES ($1, $2, $3) RETURNING id)
INSERT INTO students (id, class_id, name, place) SELECT n.id, class.id, n.name, n.place
FROM class, unnest($4::uuid[], $5::text[]) WITH ORDINALITY AS n(id, name, place)`, id, teacher, name, ids, students)
	if err != nil {
		return "", fmt.Errorf("add class: %w", err)
	}
	return id, nil
}

// Classes lists a teacher's classes by name.
func (s *Store) Classes(ctx context.Context, teacher string) ([]Class, error) {
	return list[Class](ctx, s, `SELECT c.id, c.name, (SELECT coalesce(json_agg(json_build_object('id', t.id, 'name',
		t.name) ORDER BY t.place), '[]')
		FROM students t WHERE t.class_id = c.id) AS students FROM classes c WHERE c.teacher_id = $1
		ORDER BY c.name, c.id`, teacher)
}
