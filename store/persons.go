package store

import (
	"context"
	"errors"
	"fmt"
	"strings"
	"time"

	"alpenglow/core/dossier"
	"alpenglow/core/lesson"
	"alpenglow/core/roster"
	"alpenglow/core/voices"

	"github.com/jmoiron/sqlx"
)

// ErrRunning says that a lesson goes on in which somebody is.
var ErrRunning = errors.New("running")

// Person is a student over all their classes.
type Person struct {
	Person  string         `db:"person"`
	Name    string         `db:"name"`
	Classes JSON[[]string] `db:"classes"`
}

// FindPersons finds those of all classes whose name has some words, by name.
func (s *Store) FindPersons(ctx context.Context, words []string, most int) ([]Person, error) {
	return list[Person](ctx, s, `SELECT t.person, min(t.name) AS name, json_agg(DISTINCT c.name) AS classes
		FROM students t JOIN classes c ON c.id = t.class_id GROUP BY t.person HAVING bool_or(t.name ILIKE ALL($1))
		ORDER BY min(lower(t.name)), t.person LIMIT $2`, anywhere(words), most)
}

// PersonOf gives the person that a student of a class is, and whether the teacher
// teaches all classes that they are in.
func (s *Store) PersonOf(ctx context.Context, teacher, class, student string) (person string, all bool, err error) {
	row, err := one[struct {
		Person string `db:"person"`
		All    bool   `db:"all"`
	}](ctx, s, `SELECT t.person, NOT EXISTS (SELECT 1 FROM students o WHERE o.person = t.person AND o.class_id NOT IN
			(SELECT class_id FROM class_teachers WHERE teacher_id = $1)) AS all
		FROM students t JOIN classes c ON c.id = t.class_id WHERE `+ownClass+` AND c.id = $2 AND t.id = $3`,
		teacher, class, student)
	return row.Person, row.All, err
}

// being is a person in one lesson.
type being struct {
	ID      string     `db:"id"`
	Session string     `db:"session_id"`
	Name    string     `db:"name"`
	Joined  time.Time  `db:"joined_at"`
	Title   string     `db:"title"`
	Class   string     `db:"class_name"`
	Began   time.Time  `db:"started_at"`
	Ended   *time.Time `db:"ended_at"`
	Devices int        `db:"devices"`
}

const beings = `SELECT p.id, p.session_id, p.name, p.joined_at, n.title, n.class_name, n.started_at, n.ended_at,
	(SELECT count(*) FROM passes k WHERE k.participant_id = p.id) AS devices
	FROM participants p JOIN sessions n ON n.id = p.session_id JOIN students t ON t.id = p.student_id
	WHERE t.person = $1 ORDER BY n.started_at, p.joined_at`

// TheirPicture is a picture that somebody has brought into a lesson, or a recording that a teacher made for them.
type TheirPicture struct {
	ID   string `db:"id"`
	Type string `db:"type"`
}

// File is what its file is called.
func (p TheirPicture) File() string {
	_, end, _ := strings.Cut(p.Type, "/")
	end, _, _ = strings.Cut(end, "+")
	return p.ID + "." + end
}

// Dossier reads everything about a person, and the pictures that they have brought in.
// It says ErrNotFound where there is no such person.
func (s *Store) Dossier(ctx context.Context, person string) (d dossier.Dossier, pictures []TheirPicture, err error) {
	d = dossier.Dossier{
		Format:  "person",
		Version: dossier.Version,
		Classes: []dossier.Class{},
		Lessons: []dossier.Lesson{},
	}
	classes, err := list[struct {
		ID    string            `db:"id"`
		Class string            `db:"class"`
		Name  string            `db:"name"`
		Left  *time.Time        `db:"left_at"`
		Plan  JSON[roster.Plan] `db:"plan"`
	}](ctx, s, `SELECT t.id, c.name AS class, t.name, t.left_at, c.plan FROM students t JOIN classes c ON c.id = t.class_id
		WHERE t.person = $1 ORDER BY c.archived_at IS NOT NULL, c.name`, person)
	if err == nil && len(classes) == 0 {
		err = ErrNotFound
	}
	if err != nil {
		return d, nil, err
	}
	for _, c := range classes {
		groups, seat, apart := c.Plan.V.Of(c.ID)
		d.Classes = append(
			d.Classes,
			dossier.Class{Class: c.Class, Name: c.Name, Left: c.Left, Groups: groups, Seat: seat,
				Apart: apart},
		)
	}
	card, err := one[time.Time](ctx, s, `SELECT made_at FROM cards WHERE person = $1`, person)
	if err == nil {
		d.Card = &card
	} else if !errors.Is(err, ErrNotFound) {
		return d, nil, err
	}
	in, err := list[being](ctx, s, beings, person)
	for i := 0; err == nil && i < len(in); i++ {
		var l dossier.Lesson
		var more []TheirPicture
		l, more, err = s.lessonOf(ctx, in[i])
		d.Lessons, pictures = append(d.Lessons, l), append(pictures, more...)
	}
	return d, pictures, err
}

// lessonOf reads what somebody did in one lesson.
func (s *Store) lessonOf(ctx context.Context, b being) (dossier.Lesson, []TheirPicture, error) {
	l := dossier.Lesson{Title: b.Title, Class: b.Class, Began: b.Began, Ended: b.Ended, Name: b.Name, Joined: b.Joined,
		Devices: b.Devices, Work: []dossier.Work{}}
	board, err := s.Lesson(ctx, b.Session)
	if err != nil {
		return l, nil, err
	}
	titles := map[string]string{}
	for _, f := range board.Frames {
		titles[f.ID] = f.Title
	}
	rows, err := list[struct {
		Frame string               `db:"frame_id"`
		Owner string               `db:"owner"`
		Mark  JSON[lesson.Element] `db:"mark"`
	}](ctx, s, `SELECT t.frame_id, t.owner, m.mark FROM marks m JOIN sheets t ON t.id = m.sheet_id
		WHERE t.session_id = $1 AND m.mark->>'author' = $2 ORDER BY (m.mark->>'at')::bigint, m.id`, b.Session, b.ID)
	if err != nil {
		return l, nil, err
	}
	for _, r := range rows {
		owner := r.Owner
		if owner == b.ID {
			owner = "own"
		}
		l.Work = append(
			l.Work,
			dossier.Work{Frame: titles[r.Frame], Owner: owner, At: time.UnixMilli(r.Mark.V.At).UTC(),
				What: string(r.Mark.V.Kind), Words: r.Mark.V.Words(), Removed: !r.Mark.V.OnFrame(), Mark: r.Mark.V},
		)
	}
	if l.Agreed, err = one[int](ctx, s, `SELECT count(*) FROM marks m JOIN sheets t ON t.id = m.sheet_id
		WHERE t.session_id = $1 AND m.mark->'agreed' IS NOT NULL AND m.mark->>'agreed' LIKE '%' || $2 || '%'`, b.Session,
		b.ID); err != nil {
		return l, nil, err
	}
	changes, err := list[int64](ctx, s, `SELECT g.at FROM log g JOIN sheets t ON t.id = g.sheet_id
		WHERE t.session_id = $1 AND g.author = $2 ORDER BY g.at`, b.Session, b.ID)
	for _, at := range changes {
		l.Changes = append(l.Changes, time.UnixMilli(at).UTC())
	}
	if err != nil {
		return l, nil, err
	}
	said, err := s.Voices(ctx, b.Session)
	if err != nil {
		return l, nil, err
	}
	saidOf(said, b.ID, &l)
	if err := s.about(ctx, b, &l); err != nil {
		return l, nil, err
	}
	pictures, err := list[TheirPicture](ctx, s, `SELECT id, type FROM pictures WHERE session_id = $1 AND (author = $2
		OR id IN (SELECT voice FROM judgements WHERE session_id = $1 AND participant_id::text = $2)) ORDER BY id`, b.Session, b.ID)
	for _, p := range pictures {
		l.Pictures = append(l.Pictures, p.File())
	}
	return l, pictures, err
}

// about tells what teachers told a lesson about somebody alone, and what others said
// about their work.
func (s *Store) about(ctx context.Context, b being, l *dossier.Lesson) error {
	type row struct {
		At   int64  `db:"at"`
		Text string `db:"text"`
	}
	for into, query := range map[*[]dossier.Asked]string{
		&l.Steered: `SELECT at, command->>'kind' AS text FROM happenings WHERE session_id = $1
			AND command->(command->>'kind')->>'student' = $2 ORDER BY rev`,
		&l.Judged: `SELECT at, concat_ws(': ', level->'by'->>'name', level->'scale'->(level->>'at')::int->>'name',
			nullif(comment, '')) AS text
			FROM judgements WHERE session_id = $1 AND participant_id = $2 ORDER BY at, frame, mark, criterion`,
		&l.Remarks: `SELECT (m.mark->>'at')::bigint AS at, m.mark->'remark'->>'text' AS text
			FROM marks m JOIN sheets t ON t.id = m.sheet_id WHERE t.session_id = $1 AND t.owner = $2
			AND m.mark->>'kind' = 'remark' AND m.mark->'standing' IS NULL ORDER BY 1`,
	} {
		rows, err := list[row](ctx, s, query, b.Session, b.ID)
		if err != nil {
			return err
		}
		for _, r := range rows {
			*into = append(*into, dossier.Asked{At: time.UnixMilli(r.At).UTC(), Text: r.Text})
		}
	}
	return nil
}

// saidOf tells what is kept of what was said by somebody, to them and about them.
func saidOf(v voices.Voices, participant string, l *dossier.Lesson) {
	for _, q := range v.Questions {
		if q.By == participant {
			l.Asked = append(l.Asked, dossier.Asked{At: time.UnixMilli(q.At).UTC(), Text: q.Text})
		}
	}
	for _, who := range v.Done {
		for _, id := range who {
			if id == participant {
				l.Done++
			}
		}
	}
	for _, w := range v.Told[participant] {
		l.Told = append(l.Told, dossier.Asked{At: time.UnixMilli(w.At).UTC(), Text: w.Text})
	}
	for _, p := range v.Picked {
		if p.Student == participant {
			l.Picked++
		}
	}
	if at, ok := v.Looked[participant]; ok {
		t := time.UnixMilli(at).UTC()
		l.Looked = &t
	}
}

// Erased counts what was where of somebody who was erased.
type Erased struct {
	Classes, Lessons, Marks, Changes, Pictures, Mentions int
	Card                                                 bool
	// Participants are those that are gone, by their sessions.
	Participants map[string][]string
}

// Erase removes a person: from classes, and from lessons with all that they did, also
// from the history of what others did. The work of others stays. It says ErrRunning,
// and changes nothing, while a lesson goes on in which they are.
func (s *Store) Erase(ctx context.Context, person string) (e Erased, err error) {
	err = s.within(ctx, func(tx *sqlx.Tx) error {
		// The rows are held first: nobody joins as them meanwhile.
		var students []string
		if err := tx.SelectContext(ctx, &students, `SELECT id FROM students WHERE person = $1 ORDER BY id FOR UPDATE`,
			person); err != nil {
			return err
		}
		if len(students) == 0 {
			return ErrNotFound
		}
		var in []being
		if err := tx.SelectContext(ctx, &in, beings, person); err != nil {
			return err
		}
		e = Erased{Classes: len(students), Participants: map[string][]string{}}
		for _, b := range in {
			if b.Ended == nil {
				return ErrRunning
			}
			if err := eraseFrom(ctx, tx, b, &e); err != nil {
				return err
			}
		}
		e.Lessons = len(e.Participants)
		for _, student := range students {
			if err := scrub(ctx, tx, place{"sessions", "students", "id"}, "", student, &e); err != nil {
				return err
			}
			for _, table := range []string{"classes", "sessions"} {
				if err := unplan(ctx, tx, table, student, &e); err != nil {
					return err
				}
			}
		}
		if err := count(ctx, tx, nil, `DELETE FROM students WHERE person = $1`, person); err != nil {
			return err
		}
		cards := 0
		err := count(ctx, tx, &cards, `DELETE FROM cards WHERE person = $1`, person)
		e.Card = cards > 0
		return err
	})
	if err != nil {
		return e, fmt.Errorf("erase: %w", err)
	}
	return e, nil
}

// eraseFrom removes somebody from one lesson that is over.
func eraseFrom(ctx context.Context, tx *sqlx.Tx, b being, e *Erased) error {
	e.Participants[b.Session] = append(e.Participants[b.Session], b.ID)
	const theirs = `IN (SELECT id FROM sheets WHERE session_id = $1 AND owner = $2)`
	const all = `IN (SELECT id FROM sheets WHERE session_id = $1)`
	for _, step := range []struct {
		n     *int
		query string
	}{
		{&e.Marks, `DELETE FROM marks WHERE sheet_id ` + all + ` AND (mark->>'author' = $2 OR sheet_id ` + theirs + `)`},
		{&e.Changes, `DELETE FROM log WHERE sheet_id ` + theirs},
		{nil, `DELETE FROM activity WHERE sheet_id ` + all + ` AND (author = $2 OR sheet_id ` + theirs + `)`},
		{nil, `DELETE FROM sheets WHERE session_id = $1 AND owner = $2`},
		// What they did on the sheets of others keeps its number, and says nothing.
		{&e.Changes, `UPDATE log SET author = '` + dossier.Gone + `', change = json_build_object('seq', seq)
			WHERE sheet_id ` + all + ` AND author = $2`},
		{&e.Pictures, `DELETE FROM pictures WHERE session_id = $1 AND author = $2`},
		{nil, `DELETE FROM pictures WHERE session_id = $1 AND id IN
			(SELECT voice FROM judgements WHERE session_id = $1 AND participant_id = $2)`},
		{nil, `DELETE FROM participants WHERE session_id = $1 AND id = $2`},
	} {
		if err := count(ctx, tx, step.n, step.query, b.Session, b.ID); err != nil {
			return err
		}
	}
	if err := count(ctx, tx, nil, `UPDATE sessions SET people = (SELECT count(*) FROM participants WHERE session_id = $1)
		WHERE id = $1`, b.Session); err != nil {
		return err
	}
	for _, at := range []place{{"marks", "mark", "sheet_id"}, {"log", "change", "sheet_id"},
		{"sessions", "state", "id"},
		{"voices", "said", "session_id"}, {"happenings", "command", "session_id"}} {
		if err := scrub(ctx, tx, at, b.Session, b.ID, e); err != nil {
			return err
		}
	}
	return nil
}

// count carries a statement out and adds how many rows it was about to n.
func count(ctx context.Context, tx *sqlx.Tx, n *int, query string, args ...any) error {
	result, err := tx.ExecContext(ctx, query, args...)
	if err != nil {
		return err
	}
	rows, err := result.RowsAffected()
	if n != nil {
		*n += int(rows)
	}
	return err
}

// place is where JSON is kept: a column of a table, whose rows are those of a sheet, of
// a session or a row of its own, by what names them.
type place struct{ table, column, by string }

// scrub takes somebody out of the rows of a session, or without one of all rows.
func scrub(ctx context.Context, tx *sqlx.Tx, at place, session, id string, e *Erased) error {
	within := `true`
	switch {
	case session == "":
	case at.by == "sheet_id":
		within = `sheet_id IN (SELECT id FROM sheets WHERE session_id = '` + session + `')`
	default:
		within = at.by + ` = '` + session + `'`
	}
	var rows []struct {
		Row  string `db:"row"`
		Text string `db:"text"`
	}
	if err := tx.SelectContext(ctx, &rows, `SELECT ctid::text AS row, `+at.column+` AS text FROM `+at.table+`
		WHERE `+within+` AND `+at.column+`::text LIKE '%' || $1 || '%'`, id); err != nil {
		return err
	}
	for _, r := range rows {
		text, was := dossier.Scrub([]byte(r.Text), id)
		if !was {
			continue
		}
		if err := count(ctx, tx, &e.Mentions, `UPDATE `+at.table+` SET `+at.column+` = $2 WHERE ctid = $1::tid`, r.Row,
			string(text)); err != nil {
			return err
		}
	}
	return nil
}

// unplan takes a student out of what is noted about classes.
func unplan(ctx context.Context, tx *sqlx.Tx, table, student string, e *Erased) error {
	var rows []struct {
		ID   string            `db:"id"`
		Plan JSON[roster.Plan] `db:"plan"`
	}
	if err := tx.SelectContext(ctx, &rows, `SELECT id, plan FROM `+table+` WHERE plan::text LIKE '%' || $1 || '%'`,
		student); err != nil {
		return err
	}
	for _, r := range rows {
		text, err := asJSON(r.Plan.V.Without(student))
		if err != nil {
			return err
		}
		if err := count(ctx, tx, &e.Mentions, `UPDATE `+table+` SET plan = $2 WHERE id = $1`, r.ID, text); err != nil {
			return err
		}
	}
	return nil
}
