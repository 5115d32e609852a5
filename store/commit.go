package store

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"

	"alpenglow/core/sheet"

	"github.com/jackc/pgx/v5/pgconn"
)

// Batch is what happened to one sheet and is to be stored together: changes
// numbered from Expected+1 without holes.
type Batch struct {
	Sheet   string
	Session string
	// Expected is the number the sheet must have, Terms the one that the terms
	// of its session must have, for the batch to be stored.
	Expected int64
	Terms    int64
	Changes  []sheet.Change
	// Marks are those that the changes touched, whole, as they are after them.
	Marks []sheet.Touched
	// Amounts is what each author has on the sheet after the changes whose
	// amount may be another by them.
	Amounts map[string]int
}

// commit stores many batches in one statement. PostgreSQL alone decides the
// order: a batch whose sheet has moved on, or whose session has other terms by
// now, is left out whole. Both are held to the end of the statement: nothing is
// stored after "closed" or "ended" was told.
//
// The sheets are locked in the order of their ids, so that groups of several
// processes do not lock each other out. Each mark is written once, as it is
// after the last change.
const commit = `
WITH want AS (
    SELECT * FROM unnest($1::uuid[], $2::uuid[], $3::bigint[], $4::bigint[], $5::bigint[]) AS w(sheet_id, session_id,
expected, terms, n)
), locked AS (
    SELECT s.id FROM sheets s JOIN want w ON w.sheet_id = s.id ORDER BY s.id FOR NO KEY UPDATE OF s
), held AS (
    SELECT x.id, x.terms FROM sessions x WHERE x.id IN (SELECT session_id FROM want) ORDER BY x.id FOR SHARE OF x
), moved AS (
    UPDATE sheets s SET seq = s.seq + w.n
    FROM locked l JOIN want w ON w.sheet_id = l.id JOIN held x ON x.id = w.session_id AND x.terms = w.terms
    WHERE s.id = l.id AND s.seq = w.expected
    RETURNING s.id
), logged AS (
    INSERT INTO log (sheet_id, seq, op_id, author, at, change)
    SELECT c.sheet_id, c.seq, c.op_id, c.author, c.at, c.change::json
    FROM unnest($6::uuid[], $7::bigint[], $8::uuid[], $9::text[], $10::bigint[], $11::text[]) AS c(sheet_id, seq, op_id,
author, at, change)
    JOIN moved ON moved.id = c.sheet_id
), marked AS (
    INSERT INTO marks (sheet_id, id, mark, seq, removed)
    SELECT m.sheet_id, m.id, m.mark::json, m.seq, m.removed
    FROM unnest($12::uuid[], $13::text[], $14::text[], $15::bigint[], $16::bool[]) AS m(sheet_id, id, mark, seq,
removed)
    JOIN moved ON moved.id = m.sheet_id
    ON CONFLICT (sheet_id, id) DO UPDATE SET mark = excluded.mark, seq = excluded.seq, removed = excluded.removed,
        words = NULL
), active AS (
    INSERT INTO activity (sheet_id, author, marks, at)
    SELECT a.sheet_id, a.author, a.marks, a.at FROM unnest($17::uuid[], $18::text[], $19::int[],
$20::bigint[]) AS a(sheet_id, author, marks, at)
    JOIN moved ON moved.id = a.sheet_id
    ON CONFLICT (sheet_id, author) DO UPDATE SET marks = excluded.marks, at = greatest(activity.at, excluded.at),
        pause = CASE WHEN activity.at > 0 THEN greatest(activity.pause, excluded.at - activity.at) ELSE 0 END
)
SELECT id FROM moved`

// Commit stores the batches, each whole or not at all, and returns the ids of
// the sheets whose batch was stored. A sheet may have one batch in a group. It
// says ErrTaken when the log has one of the operations already.
func (s *Store) Commit(ctx context.Context, batches []Batch) (map[string]bool, error) {
	slices.SortFunc(batches, func(a, b Batch) int { return strings.Compare(a.Sheet, b.Sheet) })
	var b columns
	for _, batch := range batches {
		if err := b.add(batch); err != nil {
			return nil, fmt.Errorf("commit: %w", err)
		}
	}
	var stored []string
	err := s.lesson.SelectContext(ctx, &stored, commit, b.sheets, b.sessions, b.expected, b.terms, b.counts,
		b.logged.sheets, b.logged.seqs, b.logged.ops, b.logged.authors, b.logged.ats, b.logged.changes,
		b.marked.sheets, b.marked.ids, b.marked.marks, b.marked.seqs, b.marked.removed,
		b.active.sheets, b.active.authors, b.active.marks, b.active.ats)
	if twice := new(pgconn.PgError); errors.As(err, &twice) && twice.ConstraintName == "log_sheet_id_op_id_key" {
		return nil, ErrTaken
	}
	if err != nil {
		return nil, fmt.Errorf("commit: %w", err)
	}
	done := make(map[string]bool, len(stored))
	for _, id := range stored {
		done[id] = true
	}
	return done, nil
}

// columns are batches as the statement takes them.
type columns struct {
	sheets, sessions        []string
	expected, terms, counts []int64
	logged                  struct {
		sheets, ops, authors, changes []string
		seqs, ats                     []int64
	}
	marked struct {
		sheets, ids, marks []string
		seqs               []int64
		removed            []bool
	}
	active struct {
		sheets, authors []string
		marks, ats      []int64
	}
}

func (b *columns) add(of Batch) error {
	b.sheets, b.sessions = append(b.sheets, of.Sheet), append(b.sessions, of.Session)
	b.expected, b.terms, b.counts = append(b.expected, of.Expected), append(b.terms, of.Terms),
		append(b.counts, int64(len(of.Changes)))
	at := map[string]int64{}
	for _, c := range of.Changes {
		text, err := asJSON(c)
		if err != nil {
			return err
		}
		l := &b.logged
		l.sheets, l.ops, l.authors = append(l.sheets, of.Sheet), append(l.ops, c.Op), append(l.authors, c.By)
		l.changes, l.seqs, l.ats = append(l.changes, text), append(l.seqs, c.Seq), append(l.ats, c.At)
		at[c.By] = max(at[c.By], c.At)
	}
	for _, m := range of.Marks {
		text, err := asJSON(m.Element)
		if err != nil {
			return err
		}
		k := &b.marked
		k.sheets, k.ids, k.marks = append(k.sheets, of.Sheet), append(k.ids, m.ID), append(k.marks, text)
		k.seqs, k.removed = append(k.seqs, m.Seq), append(k.removed, !m.OnFrame())
	}
	for author, marks := range of.Amounts {
		a := &b.active
		a.sheets, a.authors = append(a.sheets, of.Sheet), append(a.authors, author)
		a.marks, a.ats = append(a.marks, int64(marks)), append(a.ats, at[author])
	}
	return nil
}
