package store

import (
	"context"
	"errors"
	"fmt"

	"alpenglow/core/voices"
)

// Voices reads what the class of a session has said.
func (s *Store) Voices(ctx context.Context, session string) (voices.Voices, error) {
	row, err := one[struct {
		Said JSON[voices.Voices] `db:"said"`
	}](ctx, s, `SELECT said FROM voices WHERE session_id = $1`, session)
	if errors.Is(err, ErrNotFound) {
		return voices.Voices{}, nil
	}
	return row.Said.V, err
}

// SetVoices stores the next voices of a session and reports whether it did: not
// when somebody else has changed them since, or the session has ended.
func (s *Store) SetVoices(ctx context.Context, session string, next voices.Voices) (bool, error) {
	text, err := asJSON(next)
	if err != nil {
		return false, fmt.Errorf("set voices: %w", err)
	}
	done, err := s.lesson.ExecContext(ctx, `INSERT INTO voices (session_id, rev, said)
		SELECT id, $2::bigint, $3::json FROM sessions WHERE id = $1 AND ended_at IS NULL
		ON CONFLICT (session_id) DO UPDATE SET rev = excluded.rev, said = excluded.said WHERE voices.rev = excluded.rev - 1`,
		session, next.Rev, text)
	if err != nil {
		return false, fmt.Errorf("set voices: %w", err)
	}
	n, err := done.RowsAffected()
	return n == 1, err
}

// PickedBefore says how often each student of a session's class was drawn in its
// other sessions, by the student's id.
func (s *Store) PickedBefore(ctx context.Context, session string) (map[string]int, error) {
	rows, err := list[struct {
		Student string `db:"student_id"`
		Times   int    `db:"times"`
	}](ctx, s, `
		SELECT p.student_id, count(*) AS times FROM sessions now
		JOIN sessions s ON s.class_id = now.class_id AND s.id <> now.id AND NOT s.practice
		JOIN voices v ON v.session_id = s.id
		JOIN LATERAL json_array_elements(coalesce(v.said->'picked', '[]')) d ON true
		JOIN participants p ON p.id = (d->>'student')::uuid AND p.student_id IS NOT NULL
		WHERE now.id = $1 GROUP BY p.student_id`, session)
	if err != nil {
		return nil, err
	}
	times := map[string]int{}
	for _, r := range rows {
		times[r.Student] = r.Times
	}
	return times, nil
}
