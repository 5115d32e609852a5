package web_test

import (
	"encoding/json"
	"fmt"
	"net/http"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/paper"
	"alpenglow/core/poll"
	"alpenglow/store/storetest"
)

// BenchmarkRecord is the record of 300 students on 60 frames, with a note and an answer on each: as its page opens
// it, and what one student left.
func BenchmarkRecord(b *testing.B) {
	h := newHouse(b)
	ines := h.teacher("ines@ternharbour.example")
	run, _ := ines.started()
	board := lesson.Board{Title: "Hall"}
	for i := range 60 {
		question := &poll.Question{Text: "How long?", Body: poll.Offer(poll.Option{ID: "r", Text: "29.53", Right: true},
			poll.Option{ID: "w", Text: "a week"})}
		board.Frames = append(
			board.Frames,
			lesson.Frame{ID: fmt.Sprint("f", i), Title: "Frame", Paper: paper.Paper{Kind: paper.Plain},
				Arrangement: lesson.Individual, Permission: lesson.Add,
				Prepared: []lesson.Element{{ID: fmt.Sprint("q", i), X: 10, Y: 10,
					W: 400, H: 300, Body: lesson.Body{Kind: lesson.KindPoll, Poll: question}}}},
		)
	}
	db := storetest.DB(b, h.db)
	for _, f := range board.Frames {
		text, err := json.Marshal(f)
		if err != nil {
			b.Fatal(err)
		}
		if _, err := db.Exec(`INSERT INTO frames (board_id, id, content) VALUES ($1, $2, $3)`, run, f.ID, text); err != nil {
			b.Fatal(err)
		}
	}
	for _, q := range []string{
		`UPDATE boards SET outline = (SELECT json_build_object('title', 'Hall', 'frames', json_agg('f' || n ORDER BY n)) FROM
		 generate_series(0, 59) n) WHERE id = '` + run + `'`,
		`INSERT INTO participants (id, session_id, name) SELECT gen_random_uuid(), '` + run + `', 'Student ' || n FROM generate_series(1, 300) n`,
		`INSERT INTO sheets (id, session_id, frame_id, owner, seq) SELECT gen_random_uuid(), session_id, 'f' || n, id::text, 2
		 FROM participants, generate_series(0, 59) n WHERE name LIKE 'Student %'`,
		`INSERT INTO marks (sheet_id, id, seq, mark) SELECT id, 'n' || id, 1, json_build_object('id', 'n' || id, 'author', owner, 'kind', 'note',
		 'x', 10, 'y', 10, 'w', 300, 'h', 120, 'note', json_build_object('tint', 'moss', 'text', 'high tide comes later every day')) FROM sheets WHERE frame_id LIKE 'f%'`,
		`INSERT INTO marks (sheet_id, id, seq, mark) SELECT id, 'q' || substr(frame_id, 2), 2, json_build_object('id', 'q' || substr(frame_id, 2), 'author', owner, 'kind', 'answer',
		 'answer', json_build_object('poll', 'q' || substr(frame_id, 2), 'round', 1, 'value', json_build_object('kind', 'choice', 'choice',
		 json_build_object('option', 'r')))) FROM sheets WHERE frame_id LIKE 'f%'`, `ANALYZE`,
	} {
		if _, err := db.Exec(q); err != nil {
			b.Fatal(err)
		}
	}
	var student string
	if err := db.Get(&student, `SELECT id FROM participants WHERE name = 'Student 7'`); err != nil {
		b.Fatal(err)
	}
	for name, path := range map[string]string{"opened": "/record?light=1", "whole": "/record",
		"student": "/record/" + student,
		"frame":   "/frames/f7", "report": "/report"} {
		b.Run(name, func(b *testing.B) {
			for b.Loop() {
				status, _, body := ines.send(http.MethodGet, "/api/sessions/"+run+path, "", "")
				if status != http.StatusOK {
					b.Fatalf("%d %.200s", status, body)
				}
				b.ReportMetric(float64(len(body))/1024, "KiB")
			}
		})
	}
	// With the board as one file, and in again.
	if got := ines.post("/api/sessions/"+run+"/end", struct{}{}, nil); got != "" {
		b.Fatal(got)
	}
	at := "/api/boards/" + boardOf(ines) + "/file?lessons=1"
	var file []byte
	b.Run("as a file", func(b *testing.B) {
		for b.Loop() {
			var status int
			if status, _, file = ines.send(http.MethodGet, at, "", ""); status != http.StatusOK {
				b.Fatalf("%d %.200s", status, file)
			}
			b.ReportMetric(float64(len(file))/(1<<20), "MiB")
		}
	})
	b.Run("from a file", func(b *testing.B) {
		for b.Loop() {
			if got := ines.file("/api/boards/file", file, nil); got != "" {
				b.Fatal(got)
			}
		}
	})
}
