package store

import (
	"context"
	"errors"
	"fmt"

	"github.com/jmoiron/sqlx"
)

// Registered is a class, or a student of one, as the school's register calls it.
type Registered struct {
	ID       string
	Name     string
	Students []Registered
}

// TakeRegister makes classes of a teacher as a register has them. One that came from
// the register before is brought up to date: names, who is new, and who has left.
// Students whom the teacher has put in by hand stay. Who is a student of another class
// of the teacher's by the register's id is the same person.
func (s *Store) TakeRegister(ctx context.Context, teacher string, classes []Registered, most int) error {
	return s.within(ctx, func(tx *sqlx.Tx) error {
		// Two windows that take one register wait for each other.
		if _, err := tx.ExecContext(ctx, `SELECT id FROM teachers WHERE id = $1 FOR UPDATE`, teacher); err != nil {
			return fmt.Errorf("take register: %w", err)
		}
		for _, c := range classes {
			if err := takeClass(ctx, tx, teacher, c, most); err != nil {
				return fmt.Errorf("take register: %w", err)
			}
		}
		return nil
	})
}

// RegisterIDs lists which of a teacher's classes came from a register, as it calls them.
func (s *Store) RegisterIDs(ctx context.Context, teacher string) ([]string, error) {
	return list[string](ctx, s, `SELECT c.register_id FROM classes c WHERE `+ownClass+` AND c.register_id IS NOT NULL
		AND c.archived_at IS NULL`, teacher)
}

func takeClass(ctx context.Context, tx *sqlx.Tx, teacher string, c Registered, most int) error {
	var id string
	err := none(tx.GetContext(ctx, &id, `UPDATE classes c SET name = $3 WHERE `+ownClass+` AND register_id = $2
		AND archived_at IS NULL RETURNING c.id`, teacher, c.ID, c.Name))
	if errors.Is(err, ErrNotFound) {
		if id, err = addClass(ctx, tx, teacher, c.Name); err == nil {
			_, err = tx.ExecContext(ctx, `UPDATE classes SET register_id = $2 WHERE id = $1`, id, c.ID)
		}
	}
	if err != nil {
		return err
	}
	ids, names := make([]string, len(c.Students)), make([]string, len(c.Students))
	for i, student := range c.Students {
		ids[i], names[i] = student.ID, student.Name
	}
	for _, do := range []string{
		`UPDATE students t SET name = n.name, left_at = NULL FROM unnest($2::text[], $3::text[]) AS n(id, name)
			WHERE t.class_id = $1 AND t.register_id = n.id`,
		`UPDATE students SET left_at = now() WHERE class_id = $1 AND left_at IS NULL AND register_id IS NOT NULL
			AND register_id <> ALL($2::text[]) AND $3::text[] IS NOT NULL`,
	} {
		if _, err := tx.ExecContext(ctx, do, id, ids, names); err != nil {
			return err
		}
	}
	if _, err := tx.ExecContext(ctx, `INSERT INTO students (id, class_id, name, place, register_id, person)
		SELECT gen_random_uuid(), $2, n.name, n.place + coalesce((SELECT max(place) FROM students WHERE class_id = $2), 0), n.id,
			coalesce((SELECT t.person FROM students t JOIN classes c ON c.id = t.class_id WHERE `+ownClass+` AND t.register_id = n.id
				ORDER BY t.id LIMIT 1), gen_random_uuid())
		FROM unnest($3::text[], $4::text[]) WITH ORDINALITY AS n(id, name, place)
		WHERE NOT EXISTS (SELECT 1 FROM students t WHERE t.class_id = $2 AND t.register_id = n.id)`,
		teacher, id, ids, names); err != nil {
		return err
	}
	return roomIn(ctx, tx, id, most)
}
