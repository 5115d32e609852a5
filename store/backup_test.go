package store_test

import (
	"bytes"
	"context"
	"errors"
	"strings"
	"sync"
	"testing"

	"alpenglow/demo"
	"alpenglow/store"
	"alpenglow/store/storetest"
)

// A house that is in use is backed up, and what is restored has the same in it, row by
// row; what was restored is a house that works.
func TestBackup(t *testing.T) {
	t.Parallel()
	from, to := storetest.Filled(t, "demo", demo.Filled), storetest.URL(t)
	s := storetest.Open(t, from)
	ines, err := s.TeacherByEmail(ctx, demo.Email)
	if err != nil {
		t.Fatal(err)
	}
	if err := s.Note(ctx, ines.ID, "house", "", ""); err != nil {
		t.Fatal(err)
	}
	// Somebody works on: the backup is of one moment all the same.
	busy, stop := context.WithCancel(t.Context())
	var all sync.WaitGroup
	all.Go(func() {
		for i := 0; busy.Err() == nil && i < 200; i++ {
			if _, err := s.AddClass(ctx, ines.ID, "busy", []string{"Noor", "Kenji"}); err != nil {
				t.Error(err)
			}
		}
	})
	var file bytes.Buffer
	err = s.Backup(ctx, &file)
	stop()
	all.Wait()
	if err != nil {
		t.Fatal(err)
	}
	kept := file.Bytes()
	var again bytes.Buffer
	other := storetest.Open(t, to)
	if err := other.Restore(ctx, bytes.NewReader(kept)); err != nil {
		t.Fatal(err)
	}
	if err := other.Backup(ctx, &again); err != nil {
		t.Fatal(err)
	}
	if a, b := tables(t, bytes.NewReader(kept)), tables(t, &again); a != b {
		t.Errorf("%d bytes were backed up, %d after restoring", len(a), len(b))
	}
	var halves int
	if err := storetest.DB(t, to).Get(&halves, `SELECT count(*) FROM classes c WHERE name = 'busy'
		AND (SELECT count(*) FROM students WHERE class_id = c.id) <> 2`); err != nil || halves != 0 {
		t.Errorf("%d classes without their students: %v", halves, err)
	}
	if err := other.Note(ctx, ines.ID, "house", "", ""); err != nil {
		t.Error(err)
	}
	if _, err := storetest.DB(t, to).Exec(`INSERT INTO class_teachers (class_id, teacher_id) VALUES ($1, $1)`,
		store.NewID()); err == nil {
		t.Error("references are not looked at any more")
	}
	for name, err := range map[string]error{
		"into a house that is lived in": other.Restore(ctx, bytes.NewReader(kept)),
		"no backup":                     storetest.Open(t, storetest.URL(t)).Restore(ctx, strings.NewReader("nothing")),
		"half of one": storetest.Open(t, storetest.URL(t)).Restore(ctx,
			bytes.NewReader(kept[:len(kept)/2])),
	} {
		if err == nil || name == "into a house that is lived in" && !errors.Is(err, store.ErrNotEmpty) {
			t.Errorf("%s: %v", name, err)
		}
	}
}
