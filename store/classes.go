package store

import (
	"context"
	"errors"
	"fmt"
	"slices"

	"github.com/jmoiron/sqlx"
)

// ErrFull says that there is no room for so many.
var ErrFull = errors.New("full")

// Class is a class with its students, those who have left too.
type Class struct {
	ID       string          `db:"id"`
	Name     string          `db:"name"`
	Archived bool            `db:"archived"`
	Students JSON[[]Student] `db:"students"`
}

// Student is one person of a class over the year.
type Student struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Left bool   `json:"left,omitempty"`
}

// Names lists the names of the students who are in the class, in the order of the list.
func (c Class) Names() []string {
	names := []string{}
	for _, s := range c.Students.V {
		if !s.Left {
			names = append(names, s.Name)
		}
	}
	return names
}

// AddClass stores a new class of a teacher and returns its id.
func (s *Store) AddClass(ctx context.Context, teacher, name string, students []string) (string, error) {
	id, ids := NewID(), newIDs(len(students))
	_, err := s.db.ExecContext(ctx, `
WITH class AS (INSERT INTO classes (id, teacher_id, name) VALUES ($1, $2, $3) RETURNING id)
INSERT INTO students (id, class_id, name, place) SELECT n.id, class.id, n.name, n.place
FROM class, unnest($4::uuid[], $5::text[]) WITH ORDINALITY AS n(id, name, place)`, id, teacher, name, ids, students)
	if err != nil {
		return "", fmt.Errorf("add class: %w", err)
	}
	return id, nil
}

func newIDs(n int) []string {
	ids := make([]string, n)
	for i := range ids {
		ids[i] = NewID()
	}
	return ids
}

// Classes lists a teacher's classes by name, those that are put away too.
func (s *Store) Classes(ctx context.Context, teacher string) ([]Class, error) {
	return list[Class](ctx, s, `SELECT c.id, c.name, c.archived_at IS NOT NULL AS archived,
		(SELECT coalesce(json_agg(json_build_object('id', t.id, 'name', t.name, 'left', t.left_at IS NOT NULL)
			ORDER BY t.place, t.id), '[]') FROM students t WHERE t.class_id = c.id) AS students
		FROM classes c WHERE c.teacher_id = $1 ORDER BY c.name, c.id`, teacher)
}

// Class finds one of them.
func (s *Store) Class(ctx context.Context, teacher, id string) (Class, error) {
	all, err := s.Classes(ctx, teacher)
	if err != nil {
		return Class{}, err
	}
	if at := slices.IndexFunc(all, func(c Class) bool { return c.ID == id }); at >= 0 {
		return all[at], nil
	}
	return Class{}, ErrNotFound
}

// SetClass renames a class, or puts it away or brings it back; what is nil stays.
func (s *Store) SetClass(ctx context.Context, teacher, class string, name *string, archived *bool) error {
	_, err := one[string](ctx, s, `UPDATE classes SET name = coalesce($3, name),
		archived_at = CASE WHEN $4::bool IS NULL THEN archived_at WHEN $4 THEN coalesce(archived_at, now()) END
		WHERE teacher_id = $1 AND id = $2 RETURNING id`, teacher, class, name, archived)
	return err
}

// AddStudents puts students behind those of a class. It says ErrFull, and adds
// nobody, when more than most would be in it.
func (s *Store) AddStudents(ctx context.Context, teacher, class string, names []string, most int) error {
	return s.within(ctx, func(tx *sqlx.Tx) error {
		var held string
		if err := tx.GetContext(ctx, &held, `SELECT id FROM classes WHERE teacher_id = $1 AND id = $2 FOR UPDATE`, teacher,
			class); err != nil {
			return none(err)
		}
		var now int
		if err := tx.GetContext(ctx, &now, `SELECT count(*) FROM students WHERE class_id = $1 AND left_at IS NULL`,
			class); err != nil {
			return fmt.Errorf("add students: %w", err)
		}
		if now+len(names) > most {
			return ErrFull
		}
		_, err := tx.ExecContext(ctx, `INSERT INTO students (id, class_id, name, place)
			SELECT n.id, $1, n.name, n.place + coalesce((SELECT max(place) FROM students WHERE class_id = $1), 0)
			FROM unnest($2::uuid[], $3::text[]) WITH ORDINALITY AS n(id, name, place)`, class, newIDs(len(names)), names)
		return err
	})
}

// SetStudent renames a student of a class, or lets them leave or come back; what is
// nil stays.
func (s *Store) SetStudent(ctx context.Context, teacher, class, student string, name *string, left *bool) error {
	_, err := one[string](ctx, s, `UPDATE students t SET name = coalesce($4, t.name),
		left_at = CASE WHEN $5::bool IS NULL THEN t.left_at WHEN $5 THEN coalesce(t.left_at, now()) END
		FROM classes c WHERE c.id = t.class_id AND c.teacher_id = $1 AND c.id = $2 AND t.id = $3 RETURNING t.id`,
		teacher, class, student, name, left)
	return err
}
