package store

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"alpenglow/core/lesson"
	"alpenglow/core/sheet"
)

// Batch is what happened to one sheet and is to be stored together: changes
// numbered from Expected+1 without holes.
type Batch struct {
	Sheet   string
	Session string
	// Expected is the number the sheet must have, Rev the revision the
	// session's state must have, for the batch to be stored.
	Expected int64
	Rev      int64
	Changes  []sheet.Change
}

// commit stores many batches in one statement. PostgreSQL alone decides the
// order: a batch whose sheet or session has moved on is left out whole.
//
// The sheets are locked in the order of their ids, so that groups of several
// processes do not lock each other out. Each mark is written once, as it is
// after the last change.
const commit = `
WITH want AS (
    SELECT * FROM unnest($1::uuid[], $2::uuid[], $3::bigint[], $4::bigint[], $5::bigint[]) AS w(sheet_id, session_id, expected, rev, n)
), locked AS (
    SELECT s.id FROM sheets s JOIN want w ON w.sheet_id = s.id ORDER BY s.id FOR NO KEY UPDATE OF s
), moved AS (
    UPDATE sheets s SET seq = s.seq + w.n
    FROM locked l JOIN want w ON w.sheet_id = l.id JOIN sessions x ON x.id = w.session_id AND x.rev = w.rev
    WHERE s.id = l.id AND s.seq = w.expected
    RETURNING s.id
), logged AS (
    INSERT INTO log (sheet_id, seq, op_id, author, at, change)
    SELECT c.sheet_id, c.seq, c.op_id, c.author, c.at, c.change
    FROM unnest($6::uuid[], $7::bigint[], $8::uuid[], $9::text[], $10::bigint[], $11::json[]) AS c(sheet_id, seq, op_id, author, at, change)
    JOIN moved ON moved.id = c.sheet_id
), marked AS (
    INSERT INTO marks (sheet_id, id, mark)
    SELECT m.sheet_id, m.id, m.mark FROM unnest($12::uuid[], $13::text[], $14::json[]) AS m(sheet_id, id, mark)
    JOIN moved ON moved.id = m.sheet_id
    ON CONFLICT (sheet_id, id) DO UPDATE SET mark = excluded.mark
)
SELECT id FROM moved`

// Commit stores the batches, each whole or not at all, and returns the ids of
// the sheets whose batch was stored. A sheet may have one batch in a group.
func (s *Store) Commit(ctx context.Context, batches []Batch) (map[string]bool, error) {
	slices.SortFunc(batches, func(a, b Batch) int { return strings.Compare(a.Sheet, b.Sheet) })
	n := len(batches)
	ids, sessions := make([]string, n), make([]string, n)
	expected, revs, counts := make([]int64, n), make([]int64, n), make([]int64, n)
	var logged struct {
		sheets, ops, authors, changes []string
		seqs, ats                     []int64
	}
	var marked struct{ sheets, ids, marks []string }
	for i, b := range batches {
		ids[i], sessions[i], expected[i], revs[i], counts[i] = b.Sheet, b.Session, b.Expected, b.Rev, int64(len(b.Changes))
		last := map[string]lesson.Element{}
		for _, c := range b.Changes {
			text, err := asJSON(c)
			if err != nil {
				return nil, fmt.Errorf("commit: %w", err)
			}
			logged.sheets, logged.ops, logged.authors = append(logged.sheets, b.Sheet), append(logged.ops, c.Op), append(logged.authors, c.By)
			logged.changes, logged.seqs, logged.ats = append(logged.changes, text), append(logged.seqs, c.Seq), append(logged.ats, c.At)
			for _, e := range c.Put {
				last[e.ID] = e
			}
		}
		for id, e := range last {
			text, err := asJSON(e)
			if err != nil {
				return nil, fmt.Errorf("commit: %w", err)
			}
			marked.sheets, marked.ids, marked.marks = append(marked.sheets, b.Sheet), append(marked.ids, id), append(marked.marks, text)
		}
	}
	var stored []string
	err := s.db.SelectContext(ctx, &stored, commit, ids, sessions, expected, revs, counts,
		logged.sheets, logged.seqs, logged.ops, logged.authors, logged.ats, logged.changes, marked.sheets, marked.ids, marked.marks)
	if err != nil {
		return nil, fmt.Errorf("commit: %w", err)
	}
	done := make(map[string]bool, len(stored))
	for _, id := range stored {
		done[id] = true
	}
	return done, nil
}
