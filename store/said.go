package store

import (
	"context"
	"fmt"
	"time"

	"alpenglow/core/find"
	"alpenglow/core/lesson"
)

// FoundSaid is something that a student wrote or answered in a lesson.
type FoundSaid struct {
	Session   string    `db:"session_id"`
	Lesson    string    `db:"title"`
	ClassName string    `db:"class_name"`
	At        time.Time `db:"started_at"`
	Frame     string    `db:"frame_id"`
	Author    string    `db:"author"`
	Name      string    `db:"name"`
	// Words are in plain form; see find.Plain.
	Words string `db:"words"`
}

// SearchSaid lists what was written and answered in a teacher's lessons with all of the words in it (see find.Words),
// that of the latest lessons first, at most so many. Where nobody's have them, it lists what has words that are nearly
// these.
func (s *Store) SearchSaid(ctx context.Context, teacher string, words []string, most int) ([]FoundSaid, error) {
	if len(words) == 0 {
		return []FoundSaid{}, nil
	}
	if err := s.readSaid(ctx, teacher); err != nil {
		return nil, fmt.Errorf("search what was said: %w", err)
	}
	// Words that few have are found by their trigrams; words that many have soon occur in the latest lessons.
	var have int
	if err := s.get(ctx, &have, `SELECT count(*) FROM (SELECT FROM marks WHERE words LIKE ALL ($1::text[]) LIMIT $2 + 1) m`,
		anywhere(words), mostRare); err != nil {
		return nil, fmt.Errorf("search what was said: %w", err)
	}
	if have > mostRare {
		return list[FoundSaid](ctx, s, saidColumns+`FROM (SELECT n.* FROM leads l JOIN sessions n ON n.id = l.session_id
			AND NOT n.practice WHERE l.teacher_id = $1 ORDER BY n.started_at DESC, n.id) n CROSS JOIN LATERAL
			(SELECT m.*, h.frame_id FROM sheets h JOIN marks m ON m.sheet_id = h.id WHERE h.session_id = n.id AND NOT m.removed
				AND m.words LIKE ALL ($2::text[]) ORDER BY h.frame_id, m.seq LIMIT $3) m `+saidNames+` LIMIT $3`,
			teacher, anywhere(words), most)
	}
	if have > 0 {
		return list[FoundSaid](
			ctx,
			s,
			saidColumns+saidFrom+`m.words LIKE ALL ($2::text[])`+saidOrder,
			teacher,
			anywhere(words),
			most,
		)
	}
	near := []string{}
	for _, w := range words {
		if len([]rune(w)) >= leastNear {
			near = append(near, w)
		}
	}
	if len(near) == 0 {
		return []FoundSaid{}, nil
	}
	return list[FoundSaid](ctx, s, saidColumns+saidFrom+`(SELECT bool_and(w <% m.words) FROM unnest($2::text[]) w)
		AND m.words %> $4`+saidOrder, teacher, near, most, near[0])
}

// mostRare is how many marks have words at most that are looked up first and put in order then.
const mostRare = 3000

const (
	saidColumns = `SELECT n.id AS session_id, n.title, n.class_name, n.started_at, m.frame_id, m.mark->>'author' AS author,
		coalesce(p.name, '') AS name, left(m.words, 300) AS words `
	saidNames = `LEFT JOIN participants p ON p.session_id = n.id AND p.id::text = m.mark->>'author'`
	saidFrom  = `FROM (SELECT m.*, h.session_id, h.frame_id FROM marks m JOIN sheets h ON h.id = m.sheet_id) m
		JOIN leads l ON l.session_id = m.session_id AND l.teacher_id = $1
		JOIN sessions n ON n.id = m.session_id AND NOT n.practice ` + saidNames + ` WHERE NOT m.removed AND `
	saidOrder = ` ORDER BY n.started_at DESC, n.id, m.frame_id, m.seq LIMIT $3`
)

// leastNear is how many letters a word has at least for which nearly the same ones are looked for.
const leastNear = 4

// readSaid reads the words of what was written in a teacher's lessons since the last search, as far as somebody waits
// for it: the rest is read at the next search, or by ReadSaid.
func (s *Store) readSaid(ctx context.Context, teacher string) error {
	return s.readParts(ctx, `JOIN leads l ON l.session_id = h.session_id AND l.teacher_id = $2`, teacher)
}

// ReadSaid reads some of the words of what was written in lessons that have ended, of whomever, ahead of all searching.
func (s *Store) ReadSaid(ctx context.Context) error {
	return s.readParts(ctx, `JOIN sessions n ON n.id = h.session_id AND n.ended_at IS NOT NULL`)
}

// How many marks are in memory while their words are read, and how often some are read in a row.
const (
	saidAtOnce = 2000
	saidParts  = 5
)

func (s *Store) readParts(ctx context.Context, of string, args ...any) error {
	boards := map[string]lesson.Board{}
	for range saidParts {
		read, err := s.readSomeSaid(ctx, boards, of, args...)
		if err != nil || read < saidAtOnce {
			return err
		}
	}
	return nil
}

// readSomeSaid reads the words of some marks, and reports of how many. Answers say what the questions of their
// lessons' boards make of them.
func (s *Store) readSomeSaid(ctx context.Context, boards map[string]lesson.Board, of string, args ...any) (int, error) {
	unread, err := list[struct {
		Session string               `db:"session_id"`
		Sheet   string               `db:"sheet_id"`
		Frame   string               `db:"frame_id"`
		ID      string               `db:"id"`
		Seq     int64                `db:"seq"`
		Mark    JSON[lesson.Element] `db:"mark"`
	}](ctx, s, `SELECT h.session_id, m.sheet_id, h.frame_id, m.id, m.seq, m.mark FROM marks m JOIN sheets h ON h.id = m.sheet_id
		`+of+` WHERE m.words IS NULL LIMIT $1`, append([]any{saidAtOnce}, args...)...)
	if err != nil || len(unread) == 0 {
		return 0, err
	}
	sheets, ids, seqs, words := []string{}, []string{}, []int64{}, []string{}
	for _, m := range unread {
		board, known := boards[m.Session]
		if !known {
			if board, err = s.Lesson(ctx, m.Session); err != nil {
				return 0, err
			}
			boards[m.Session] = board
		}
		sheets, ids, seqs = append(sheets, m.Sheet), append(ids, m.ID), append(seqs, m.Seq)
		words = append(words, find.Plain(saidWith(board, m.Frame, m.Mark.V)))
	}
	// What was changed meanwhile is read again at the next search.
	_, err = s.db.ExecContext(ctx, `UPDATE marks m SET words = n.words
		FROM unnest($1::uuid[], $2::text[], $3::bigint[], $4::text[]) AS n(sheet, id, seq, words)
		WHERE m.sheet_id = n.sheet AND m.id = n.id AND m.seq = n.seq`, sheets, ids, seqs, words)
	return len(unread), err
}

// saidWith is what a mark says: its words, or an answer in words.
func saidWith(board lesson.Board, frame string, m lesson.Element) string {
	if m.Answer == nil {
		return m.Words()
	}
	on, _, err := board.Frame(frame)
	if err != nil {
		return ""
	}
	asked, err := on.Poll(m.Answer.Poll)
	if err != nil {
		return ""
	}
	return asked.Poll.In(m.Answer.Round).Says(m.Answer.Value)
}

// mostLessons is how many lessons are looked through for words in their titles and classes, the latest first.
const mostLessons = 5000

// SearchLessons lists the lessons of a teacher that have ended and have all of the words in their title or in the name
// of their class, the latest first, at most so many.
func (s *Store) SearchLessons(ctx context.Context, teacher string, words []string, most int) ([]SessionSummary, error) {
	found := []SessionSummary{}
	if len(words) == 0 {
		return found, nil
	}
	all, err := list[SessionSummary](
		ctx,
		s,
		`SELECT n.id, n.title, n.class_name, n.started_at, n.ended_at, n.people AS students
		FROM leads l JOIN sessions n ON n.id = l.session_id
		WHERE l.teacher_id = $1 AND n.ended_at IS NOT NULL AND NOT n.practice ORDER BY n.started_at DESC LIMIT $2`,
		teacher,
		mostLessons,
	)
	for _, n := range all {
		if len(found) < most && find.In(find.Plain(n.Title+" "+n.ClassName), words) {
			found = append(found, n)
		}
	}
	return found, err
}
