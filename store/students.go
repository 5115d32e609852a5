package store

import (
	"context"
	"errors"
	"fmt"

	"github.com/jmoiron/sqlx"
)

// AddStudents puts students behind those of a class. It says ErrFull, and adds
// nobody, when more than most would be in it.
func (s *Store) AddStudents(ctx context.Context, teacher, class string, names []string, most int) error {
	return s.within(ctx, func(tx *sqlx.Tx) error {
		if err := holdClass(ctx, tx, teacher, class); err != nil {
			return err
		}
		if err := addStudents(ctx, tx, class, names); err != nil {
			return err
		}
		return roomIn(ctx, tx, class, most)
	})
}

// roomIn says ErrFull where a class has more than so many students.
func roomIn(ctx context.Context, tx *sqlx.Tx, class string, most int) error {
	var now int
	if err := tx.GetContext(ctx, &now, `SELECT count(*) FROM students WHERE class_id = $1 AND left_at IS NULL`,
		class); err != nil {
		return fmt.Errorf("count students: %w", err)
	}
	if now > most {
		return ErrFull
	}
	return nil
}

// SetStudent renames a student of a class, or lets them leave or come back; what is
// nil stays. It says ErrFull where there are more than most.
func (s *Store) SetStudent(ctx context.Context, teacher, class, student string, name *string, left *bool,
	most int) error {
	return s.within(ctx, func(tx *sqlx.Tx) error {
		if err := holdClass(ctx, tx, teacher, class); err != nil {
			return err
		}
		var set string
		if err := tx.GetContext(ctx, &set, `UPDATE students SET name = coalesce($3, name),
			left_at = CASE WHEN $4::bool IS NULL THEN left_at WHEN $4 THEN coalesce(left_at, now()) END
			WHERE class_id = $1 AND id = $2 RETURNING id`, class, student, name, left); err != nil {
			return none(err)
		}
		if left != nil && !*left {
			return roomIn(ctx, tx, class, most)
		}
		return nil
	})
}

// MoveStudent moves a student behind those of another class of the teacher's. Their
// work in lessons of the first one stays in its records.
func (s *Store) MoveStudent(ctx context.Context, teacher, class, student, to string, most int) error {
	return s.within(ctx, func(tx *sqlx.Tx) error {
		// In one order, so that two who move students to and fro wait for one another.
		for _, c := range []string{min(class, to), max(class, to)} {
			if err := holdClass(ctx, tx, teacher, c); err != nil {
				return err
			}
		}
		var moved string
		if err := tx.GetContext(ctx, &moved, `UPDATE students SET class_id = $3, left_at = NULL,
			place = 1 + coalesce((SELECT max(place) FROM students WHERE class_id = $3), 0)
			WHERE class_id = $1 AND id = $2 RETURNING id`, class, student, to); err != nil {
			return none(err)
		}
		return roomIn(ctx, tx, to, most)
	})
}

// MergeStudents makes one of two students of a class who are one person: what the
// second one did is the first one's, and their card stops.
func (s *Store) MergeStudents(ctx context.Context, teacher, class, stays, goes string) error {
	return s.within(ctx, func(tx *sqlx.Tx) error {
		if err := holdClass(ctx, tx, teacher, class); err != nil {
			return err
		}
		var persons []struct {
			ID     string `db:"id"`
			Person string `db:"person"`
		}
		if err := tx.SelectContext(ctx, &persons, `SELECT id, person FROM students WHERE class_id = $1 AND id IN ($2, $3)
			ORDER BY id = $2 DESC`, class, stays, goes); err != nil {
			return fmt.Errorf("merge students: %w", err)
		}
		if len(persons) != 2 {
			return ErrNotFound
		}
		for _, do := range []string{
			`UPDATE participants SET student_id = $1 WHERE student_id = $2`,
			`DELETE FROM students WHERE id = $2 AND id <> $1`,
		} {
			if _, err := tx.ExecContext(ctx, do, stays, goes); err != nil {
				return fmt.Errorf("merge students: %w", err)
			}
		}
		if persons[0].Person == persons[1].Person {
			return nil
		}
		// In other classes they are one person from now on too.
		for _, do := range []string{
			`UPDATE students SET person = $1 WHERE person = $2`,
			`DELETE FROM cards WHERE person = $2 AND person <> $1`,
		} {
			if _, err := tx.ExecContext(ctx, do, persons[0].Person, persons[1].Person); err != nil {
				return fmt.Errorf("merge students: %w", err)
			}
		}
		return nil
	})
}

// NameCard is the card of a student.
type NameCard struct {
	Student string `db:"student"`
	Code    string `db:"code"`
}

// Cards gives the cards of the students who are in a class, and makes those that are
// missing with codes from code. One in use is not given twice.
func (s *Store) Cards(ctx context.Context, teacher, class string, code func() string) ([]NameCard, error) {
	without, err := list[string](ctx, s, `SELECT DISTINCT t.person FROM students t JOIN classes c ON c.id = t.class_id
		WHERE `+ownClass+` AND c.id = $2 AND t.left_at IS NULL AND NOT EXISTS (SELECT 1 FROM cards k WHERE k.person = t.person)`,
		teacher, class)
	for i := 0; err == nil && i < len(without); {
		var made string
		// Taken by another person: try another code. Another window was quicker: theirs.
		made, err = one[string](
			ctx,
			s,
			`WITH made AS (INSERT INTO cards (person, code) VALUES ($1, $2) ON CONFLICT DO NOTHING
			RETURNING code) SELECT code FROM made UNION ALL SELECT code FROM cards WHERE person = $1 LIMIT 1`,
			without[i],
			code(),
		)
		if made != "" {
			i++
		}
		if errors.Is(err, ErrNotFound) {
			err = nil
		}
	}
	if err != nil {
		return nil, fmt.Errorf("cards: %w", err)
	}
	return list[NameCard](ctx, s, `SELECT t.id AS student, k.code FROM students t JOIN classes c ON c.id = t.class_id
		JOIN cards k ON k.person = t.person WHERE `+ownClass+` AND c.id = $2 AND t.left_at IS NULL ORDER BY t.place, t.id`,
		teacher, class)
}

// DropCard makes the card of a student of a class stop, and what devices hold that
// came in with it; it gives the participants whose devices these are. The next page
// of cards has another one for them.
func (s *Store) DropCard(ctx context.Context, teacher, class, student string) (out []string, err error) {
	err = s.within(ctx, func(tx *sqlx.Tx) error {
		var person string
		if err := tx.GetContext(ctx, &person, `DELETE FROM cards k USING students t, classes c WHERE k.person = t.person
			AND c.id = t.class_id AND `+ownClass+` AND c.id = $2 AND t.id = $3 RETURNING k.person`, teacher, class,
			student); err != nil {
			return none(err)
		}
		return tx.SelectContext(ctx, &out, `DELETE FROM passes k USING participants p, students t
			WHERE k.card AND p.id = k.participant_id AND t.id = p.student_id AND t.person = $1 RETURNING p.id`, person)
	})
	return out, err
}

// CardLesson is a lesson that a person may come into with their card.
type CardLesson struct {
	Session string `db:"session"`
	Student string `db:"student"`
	Name    string `db:"name"`
	Title   string `db:"title"`
	// Participant is who they are there already.
	Participant *string `db:"participant"`
}

// ByCard lists the lessons that are going on in classes of the person with a card, the
// one that began last first; known says that there is such a card.
func (s *Store) ByCard(ctx context.Context, code string) (lessons []CardLesson, known bool, err error) {
	person, err := one[string](ctx, s, `SELECT person FROM cards WHERE code = $1`, code)
	if errors.Is(err, ErrNotFound) {
		return nil, false, nil
	}
	if err != nil {
		return nil, false, err
	}
	lessons, err = list[CardLesson](
		ctx,
		s,
		`SELECT DISTINCT ON (n.started_at, n.id) n.id AS session, t.id AS student, n.title, p.id AS participant,
		coalesce((SELECT e->>'name' FROM json_array_elements(n.students) e WHERE e->>'id' = t.id::text), t.name) AS name
		FROM students t JOIN sessions n ON n.class_id = t.class_id AND n.ended_at IS NULL AND NOT n.practice
		LEFT JOIN participants p ON p.session_id = n.id AND p.student_id = t.id
		WHERE t.person = $1 AND t.left_at IS NULL ORDER BY n.started_at DESC, n.id, p.joined_at`,
		person,
	)
	return lessons, true, err
}
