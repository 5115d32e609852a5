package store

import (
	"context"
	"fmt"
	"strings"

	"alpenglow/core/find"
	"alpenglow/core/lesson"
)

// FoundFrame is a frame on which words were found.
type FoundFrame struct {
	Board string `db:"board_id"`
	Frame string `db:"id"`
	Title string `db:"title"`
	// Number is its place on the board, from 1.
	Number int `db:"number"`
}

// anywhere makes patterns of words that occur anywhere in a text.
func anywhere(words []string) []string {
	patterns := make([]string, len(words))
	for i, w := range words {
		patterns[i] = "%" + strings.NewReplacer(`\`, `\\`, "%", `\%`, "_", `\_`).Replace(w) + "%"
	}
	return patterns
}

// Search lists the frames of a teacher's boards on which all of the words
// occur (see find.Words), board by board, the last changed first.
func (s *Store) Search(ctx context.Context, teacher string, words []string) ([]FoundFrame, error) {
	if len(words) == 0 {
		return []FoundFrame{}, nil
	}
	if err := s.readWords(ctx, teacher); err != nil {
		return nil, fmt.Errorf("search: %w", err)
	}
	return list[FoundFrame](ctx, s, `
		SELECT f.board_id, f.id, f.content->>'title' AS title, o.number
		FROM boards b, json_array_elements_text(b.outline->'frames') WITH ORDINALITY o(id, number), frames f
		WHERE b.teacher_id = $1 AND b.session_id IS NULL AND b.deleted_at IS NULL AND f.board_id = b.id AND f.id = o.id
		AND f.words LIKE ALL ($2::text[])
		ORDER BY b.changed_at DESC, b.id, o.number`, teacher, anywhere(words))
}

// readAtOnce is how many frames are in memory while their words are read.
const readAtOnce = 200

// readWords reads the words of the frames that have changed since the last search.
func (s *Store) readWords(ctx context.Context, teacher string) error {
	for {
		read, err := s.readSomeWords(ctx, teacher)
		if err != nil || read < readAtOnce {
			return err
		}
	}
}

// readSomeWords reads the words of some frames, and reports of how many.
func (s *Store) readSomeWords(ctx context.Context, teacher string) (int, error) {
	var changed []struct {
		Board   string             `db:"board_id"`
		ID      string             `db:"id"`
		Content JSON[lesson.Frame] `db:"content"`
		Hash    string             `db:"hash"`
	}
	err := s.db.SelectContext(ctx, &changed, `SELECT f.board_id, f.id, f.content, md5(f.content::text) AS hash
		FROM frames f JOIN boards b ON b.id = f.board_id
		WHERE b.teacher_id = $1 AND b.session_id IS NULL AND f.words IS NULL LIMIT $2`, teacher, readAtOnce)
	if err != nil || len(changed) == 0 {
		return 0, err
	}
	boards, ids, hashes, words := []string{}, []string{}, []string{}, []string{}
	for _, f := range changed {
		boards, ids = append(boards, f.Board), append(ids, f.ID)
		hashes, words = append(hashes, f.Hash), append(words, find.Plain(f.Content.V.Words()))
	}
	// A frame that was changed meanwhile is read again at the next search.
	_, err = s.db.ExecContext(ctx, `UPDATE frames f SET words = n.words
		FROM unnest($1::uuid[], $2::text[], $3::text[], $4::text[]) AS n(board, id, hash, words)
		WHERE f.board_id = n.board AND f.id = n.id AND md5(f.content::text) = n.hash`, boards, ids, hashes, words)
	return len(changed), err
}
