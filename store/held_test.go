package store_test

import (
	"errors"
	"testing"

	"alpenglow/store"
	"alpenglow/store/storetest"
)

// A board that is taken back goes with the lessons that were put in with it, and nothing else does.
func TestForgetBoard(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t, storetest.URL(t))
	goes, stays := started(t, s, "GOES22"), started(t, s, "STAYS2")
	boards := map[string]string{}
	for _, n := range []store.Session{goes, stays} {
		board, err := s.BoardOf(ctx, n.ID)
		if err != nil {
			t.Fatal(err)
		}
		boards[n.ID] = board
	}
	if err := s.ForgetBoard(ctx, boards[goes.ID], []string{goes.ID}); err != nil {
		t.Fatal(err)
	}
	for _, n := range []store.Session{goes, stays} {
		_, noLesson := s.Session(ctx, n.ID)
		_, noBoard := s.Board(ctx, n.TeacherID, boards[n.ID])
		if gone := n.ID == goes.ID; errors.Is(noLesson, store.ErrNotFound) != gone ||
			errors.Is(noBoard, store.ErrNotFound) != gone {
			t.Errorf("%s: %v, %v", n.Code, noLesson, noBoard)
		}
	}
}
