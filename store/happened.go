package store

import (
	"context"
	"fmt"

	"alpenglow/core/lesson"
	"alpenglow/core/record"
	"alpenglow/core/session"
)

// How much of what happened in a session is read, the latest of it.
const (
	mostHappened = 2000
	mostTold     = 2000
)

// Line gives a session as a line of time, up to a time in milliseconds since 1970.
func (s *Store) Line(ctx context.Context, n Session, board lesson.Board, to int64, day int) (record.Line, error) {
	if n.EndedAt != nil {
		to = n.EndedAt.UnixMilli()
	}
	rows, err := list[struct {
		At      int64                 `db:"at"`
		By      string                `db:"by"`
		Command JSON[session.Command] `db:"command"`
	}](ctx, s, `SELECT at, by, command FROM happenings WHERE session_id = $1 ORDER BY rev DESC LIMIT $2`, n.ID,
		mostHappened)
	if err != nil {
		return record.Line{}, fmt.Errorf("line: %w", err)
	}
	happened := make([]session.Happening, 0, len(rows))
	for i := len(rows) - 1; i >= 0; i-- {
		happened = append(happened, session.Happening{At: rows[i].At, By: rows[i].By, Command: rows[i].Command.V})
	}
	done, err := list[record.Done](ctx, s, `SELECT s.frame_id, l.at / $2 * $2 AS at, count(*) AS n
		FROM sheets s JOIN log l ON l.sheet_id = s.id WHERE s.session_id = $1 GROUP BY 1, 2`, n.ID, record.DoneStep)
	if err != nil {
		return record.Line{}, fmt.Errorf("line: %w", err)
	}
	deeds, err := list[struct {
		Frame string `db:"frame_id"`
		Owner string `db:"owner"`
		At    int64  `db:"at"`
		Left  JSON[struct {
			Put  []record.ToldMark `json:"put"`
			Come []string          `json:"come"`
		}] `db:"change"`
	}](ctx, s, `SELECT s.frame_id, s.owner, l.at, l.change FROM sheets s JOIN log l ON l.sheet_id = s.id
		WHERE s.session_id = $1 AND l.author = $2 ORDER BY l.at DESC LIMIT $3`, n.ID, lesson.Staff, mostTold)
	if err != nil {
		return record.Line{}, fmt.Errorf("line: %w", err)
	}
	told := make([]record.Told, len(deeds))
	for i, d := range deeds {
		told[len(deeds)-1-i] = record.Told{
			Frame: d.Frame,
			Owner: d.Owner,
			At:    d.At,
			Put:   d.Left.V.Put,
			Come:  d.Left.V.Come,
		}
	}
	if days := n.State.V.Days; day > 0 && day <= len(days) {
		on := days[day-1]
		if on.Until == 0 {
			on.Until = to
		}
		return record.LineOfDay(board, on, happened, done, told), nil
	}
	return record.LineOf(board, n.StartedAt.UnixMilli(), to, happened, done, told), nil
}
