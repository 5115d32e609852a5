package store

import (
	"context"
	"errors"
	"fmt"
	"time"

	"alpenglow/core/assess"

	"github.com/jmoiron/sqlx"
)

// HeldWith lists the lessons that a teacher held with a board and that are over, the first one first.
func (s *Store) HeldWith(ctx context.Context, teacher, board string, most int) ([]Session, error) {
	return list[Session](ctx, s, `SELECT `+sessionColumns+` FROM sessions WHERE teacher_id = $1 AND board_id = $2
		AND ended_at IS NOT NULL AND NOT practice ORDER BY started_at, id LIMIT $3`, teacher, board, most)
}

// SeatAll gives students of a lesson of a file their seats, which no device has, and says under which ids, in their
// order.
func (s *Store) SeatAll(ctx context.Context, session string, names []string) ([]string, error) {
	ids := make([]string, len(names))
	for i := range ids {
		ids[i] = NewID()
	}
	_, err := s.db.ExecContext(
		ctx,
		`WITH people AS (UPDATE sessions SET people = people + cardinality($2::uuid[]) WHERE id = $1)
		INSERT INTO participants (id, session_id, name) SELECT p.id, $1, p.name FROM unnest($2::uuid[], $3::text[]) AS p(id, name)`,
		session,
		ids,
		names,
	)
	if err != nil {
		return nil, fmt.Errorf("seat all: %w", err)
	}
	return ids, nil
}

// JudgeAll notes what a teacher thinks of many pieces of a lesson of a file, each of which nothing was noted of before.
func (s *Store) JudgeAll(ctx context.Context, session, by string, all []assess.Judged) error {
	var students, frames, marks, criteria, levels, comments, inks, voices []string
	var ats []int64
	for _, j := range all {
		level, ink := "", ""
		var err, failed error
		if j.Level != nil {
			level, err = asJSON(j.Level)
		}
		if len(j.Ink) > 0 {
			ink, failed = asJSON(j.Ink)
		}
		if err := errors.Join(err, failed); err != nil {
			return fmt.Errorf("judge all: %w", err)
		}
		students, frames, marks = append(students, j.Student), append(frames, j.Frame), append(marks, j.Mark)
		criteria, levels, comments = append(criteria, j.Criterion), append(levels, level), append(comments, j.Comment)
		inks, voices, ats = append(inks, ink), append(voices, j.Voice), append(ats, j.At)
	}
	_, err := s.db.ExecContext(ctx, `INSERT INTO judgements
		(session_id, by, participant_id, frame, mark, criterion, level, comment, ink, voice, at)
		SELECT $1, $2, j.student, j.frame, j.mark, j.criterion, nullif(j.level, '')::json, j.comment, nullif(j.ink, '')::json,
			v.id, j.at
		FROM unnest($3::uuid[], $4::text[], $5::text[], $6::text[], $7::text[], $8::text[], $9::text[], $10::text[],
			$11::bigint[]) AS j(student, frame, mark, criterion, level, comment, ink, voice, at)
		LEFT JOIN pictures v ON v.id = nullif(j.voice, '')::uuid AND v.session_id = $1 AND v.type = 'audio/wav'`,
		session, by, students, frames, marks, criteria, levels, comments, inks, voices, ats)
	if err != nil {
		return fmt.Errorf("judge all: %w", err)
	}
	return nil
}

// WasHeld makes a lesson of a file, which was put in as a rehearsal so that nothing half done is kept, one that was
// held: then, and with nothing that happened but what lies on its sheets.
func (s *Store) WasHeld(ctx context.Context, id string, began, ended time.Time) error {
	_, err := s.db.ExecContext(ctx, `WITH people AS (UPDATE participants SET joined_at = $2 WHERE session_id = $1),
		happened AS (DELETE FROM happenings WHERE session_id = $1)
		UPDATE sessions SET practice = false, started_at = $2, ended_at = $3 WHERE id = $1`, id, began, ended)
	if err != nil {
		return fmt.Errorf("was held: %w", err)
	}
	return nil
}

// ForgetBoard takes back a board that was made a moment ago, with lessons of it.
func (s *Store) ForgetBoard(ctx context.Context, board string, lessons []string) error {
	err := s.within(ctx, func(tx *sqlx.Tx) error {
		if err := forgetSessions(ctx, tx, `id = ANY($1)`, lessons); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `DELETE FROM boards WHERE id = $1`, board)
		return err
	})
	if err != nil {
		return fmt.Errorf("forget board: %w", err)
	}
	return nil
}
