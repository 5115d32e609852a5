package store

import (
	"context"
	"errors"
	"fmt"

	"alpenglow/core/roster"

	"github.com/jmoiron/sqlx"
)

// ErrFull says that there is no room for so many.
var ErrFull = errors.New("full")

// Class is a class with its students, those who have left too, and its teachers.
type Class struct {
	ID       string            `db:"id"`
	Name     string            `db:"name"`
	Archived bool              `db:"archived"`
	Students JSON[[]Student]   `db:"students"`
	Teachers JSON[[]Colleague] `db:"teachers"`
	Plan     JSON[roster.Plan] `db:"plan"`
	// Keep is for how many months its records are kept; nil as the house says.
	Keep *int `db:"keep_months"`
}

// Student is one person of a class over the year.
type Student struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Left bool   `json:"left,omitempty"`
}

// Colleague is one who teaches a class.
type Colleague struct {
	ID   string `json:"id"`
	Name string `json:"name"`
}

// List gives the students who are in the class, in the order of the list, each by a
// name that tells them apart.
func (c Class) List() []roster.Listed {
	list, names := []roster.Listed{}, []string{}
	for _, s := range c.Students.V {
		if !s.Left {
			list, names = append(list, roster.Listed{ID: s.ID}), append(names, s.Name)
		}
	}
	for i, name := range roster.ToldApart(names) {
		list[i].Name = name
	}
	return list
}

// Names lists the names of the students who are in the class, as they were written.
func (c Class) Names() []string {
	names := []string{}
	for _, s := range c.Students.V {
		if !s.Left {
			names = append(names, s.Name)
		}
	}
	return names
}

// ownClass is the condition that a class c is taught by the teacher in $1.
const ownClass = `c.id IN (SELECT class_id FROM class_teachers WHERE teacher_id = $1)`

// AddClass stores a new class of a teacher and returns its id.
func (s *Store) AddClass(ctx context.Context, teacher, name string, students []string) (id string, err error) {
	err = s.within(ctx, func(tx *sqlx.Tx) error {
		if id, err = addClass(ctx, tx, teacher, name); err != nil {
			return err
		}
		return addStudents(ctx, tx, id, students)
	})
	if err != nil {
		return "", fmt.Errorf("add class: %w", err)
	}
	return id, nil
}

func addClass(ctx context.Context, tx *sqlx.Tx, teacher, name string) (string, error) {
	id := NewID()
	if _, err := tx.ExecContext(ctx, `INSERT INTO classes (id, name) VALUES ($1, $2)`, id, name); err != nil {
		return "", err
	}
	_, err := tx.ExecContext(ctx, `INSERT INTO class_teachers (class_id, teacher_id) VALUES ($1, $2)`, id, teacher)
	return id, err
}

// addStudents puts new persons behind those of a class.
func addStudents(ctx context.Context, tx *sqlx.Tx, class string, names []string) error {
	_, err := tx.ExecContext(ctx, `INSERT INTO students (id, class_id, name, place)
		SELECT n.id, $1, n.name, n.place + coalesce((SELECT max(place) FROM students WHERE class_id = $1), 0)
		FROM unnest($2::uuid[], $3::text[]) WITH ORDINALITY AS n(id, name, place)`, class, newIDs(len(names)), names)
	return err
}

func newIDs(n int) []string {
	ids := make([]string, n)
	for i := range ids {
		ids[i] = NewID()
	}
	return ids
}

const classColumns = `c.id, c.name, c.archived_at IS NOT NULL AS archived, c.plan, c.keep_months,
	(SELECT coalesce(json_agg(json_build_object('id', t.id, 'name', t.name, 'left', t.left_at IS NOT NULL)
		ORDER BY t.place, t.id), '[]') FROM students t WHERE t.class_id = c.id) AS students,
	(SELECT json_agg(json_build_object('id', t.id, 'name', t.name) ORDER BY t.name, t.id)
		FROM class_teachers k JOIN teachers t ON t.id = k.teacher_id WHERE k.class_id = c.id) AS teachers`

// Classes lists a teacher's classes by name, those that are put away too.
func (s *Store) Classes(ctx context.Context, teacher string) ([]Class, error) {
	return list[Class](
		ctx,
		s,
		`SELECT `+classColumns+` FROM classes c WHERE `+ownClass+` ORDER BY c.name, c.id`,
		teacher,
	)
}

// Class finds one of them.
func (s *Store) Class(ctx context.Context, teacher, id string) (Class, error) {
	return one[Class](ctx, s, `SELECT `+classColumns+` FROM classes c WHERE `+ownClass+` AND c.id = $2`, teacher, id)
}

// SetClass renames a class, or puts it away or brings it back; what is nil stays.
func (s *Store) SetClass(ctx context.Context, teacher, class string, name *string, archived *bool) error {
	_, err := one[string](ctx, s, `UPDATE classes c SET name = coalesce($3, name),
		archived_at = CASE WHEN $4::bool IS NULL THEN archived_at WHEN $4 THEN coalesce(archived_at, now()) END
		WHERE `+ownClass+` AND c.id = $2 RETURNING c.id`, teacher, class, name, archived)
	return err
}

// SetPlan notes what a teacher notes about a class; check gives what is kept, given
// the students who are in it.
func (s *Store) SetPlan(ctx context.Context, teacher, class string,
	check func(students []string) (roster.Plan, error)) error {
	return s.within(ctx, func(tx *sqlx.Tx) error {
		if err := holdClass(ctx, tx, teacher, class); err != nil {
			return err
		}
		students := []string{}
		if err := tx.SelectContext(ctx, &students, `SELECT id FROM students WHERE class_id = $1 AND left_at IS NULL`,
			class); err != nil {
			return fmt.Errorf("set plan: %w", err)
		}
		plan, err := check(students)
		if err != nil {
			return err
		}
		text, err := asJSON(plan.Sound())
		if err != nil {
			return fmt.Errorf("set plan: %w", err)
		}
		_, err = tx.ExecContext(ctx, `UPDATE classes SET plan = $2 WHERE id = $1`, class, text)
		return err
	})
}

// holdClass holds a teacher's class for the rest of a transaction.
func holdClass(ctx context.Context, tx *sqlx.Tx, teacher, class string) error {
	var held string
	return none(
		tx.GetContext(ctx, &held, `SELECT c.id FROM classes c WHERE `+ownClass+` AND c.id = $2 FOR UPDATE`, teacher,
			class),
	)
}

// NextYear makes a class with the list of another: the same persons, who are students
// of both. That one is put away.
func (s *Store) NextYear(ctx context.Context, teacher, class, name string) (id string, err error) {
	err = s.within(ctx, func(tx *sqlx.Tx) error {
		if err := holdClass(ctx, tx, teacher, class); err != nil {
			return err
		}
		if id, err = addClass(ctx, tx, teacher, name); err != nil {
			return err
		}
		_, err := tx.ExecContext(
			ctx,
			`WITH away AS (UPDATE classes SET archived_at = coalesce(archived_at, now()) WHERE id = $1)
			INSERT INTO students (id, class_id, name, place, person, register_id)
			SELECT gen_random_uuid(), $2, name, place, person, register_id FROM students WHERE class_id = $1 AND left_at IS NULL`,
			class,
			id,
		)
		return err
	})
	return id, err
}

// Colleagues lists those of the staff with whom a class can be taught.
func (s *Store) Colleagues(ctx context.Context, teacher string) ([]Colleague, error) {
	return list[Colleague](ctx, s, `SELECT id, name FROM teachers WHERE left_at IS NULL AND goes_at IS NULL AND id <> $1
		ORDER BY lower(name), id`,
		teacher)
}

// TeachTogether lets a colleague teach a class of the teacher's, or no more.
// It says ErrLast where nobody would teach it.
func (s *Store) TeachTogether(ctx context.Context, teacher, class, colleague string, teaches bool) error {
	return s.within(ctx, func(tx *sqlx.Tx) error {
		if err := holdClass(ctx, tx, teacher, class); err != nil {
			return err
		}
		if teaches {
			var added string
			return none(tx.GetContext(ctx, &added, `INSERT INTO class_teachers (class_id, teacher_id)
				SELECT $1, id FROM teachers WHERE id = $2 AND left_at IS NULL AND goes_at IS NULL
				ON CONFLICT (class_id, teacher_id) DO UPDATE SET teacher_id = excluded.teacher_id RETURNING teacher_id`,
				class, colleague))
		}
		var left int
		if _, err := tx.ExecContext(ctx, `DELETE FROM class_teachers WHERE class_id = $1 AND teacher_id = $2`, class,
			colleague); err != nil {
			return err
		}
		if err := tx.GetContext(ctx, &left, `SELECT count(*) FROM class_teachers WHERE class_id = $1`,
			class); err != nil {
			return err
		}
		if left == 0 {
			return ErrLast
		}
		return nil
	})
}
