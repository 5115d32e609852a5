package private_test

import (
	"context"
	"os"
	"path/filepath"
	"testing"

	"alpenglow/store"
	"alpenglow/store/private"
)

// A second start on the same folder keeps the data; a start beside a running
// one is refused and does not disturb it.
func TestStartTwice(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("takes long")
	}
	base, err := os.MkdirTemp("/var/tmp", "alpenglow-private-")
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { os.RemoveAll(base) })
	if err := os.Chmod(base, 0o755); err != nil {
		t.Fatal(err)
	}
	ctx, dir := context.Background(), filepath.Join(base, "data", "postgres")
	open := func(c *private.Cluster) *store.Store {
		s, err := store.Open(ctx, c.URL)
		if err != nil {
			t.Fatal(err)
		}
		if err := s.Migrate(ctx); err != nil {
			t.Fatal(err)
		}
		return s
	}
	first, err := private.Start(ctx, private.Options{Dir: dir, Fast: true})
	if err != nil {
		t.Fatal(err)
	}
	s := open(first)
	if err := s.AddTeacher(ctx, &store.Teacher{Email: "Ines@ternharbour.example", Password: "x"}); err != nil {
		t.Fatal(err)
	}
	if second, err := private.Start(ctx, private.Options{Dir: dir, Fast: true}); err == nil {
		second.Stop()
		t.Error("two clusters in one folder")
	}
	if err := s.Ping(ctx); err != nil {
		t.Errorf("the running cluster was disturbed: %v", err)
	}
	s.Close()
	if err := first.Stop(); err != nil {
		t.Fatal(err)
	}
	again, err := private.Start(ctx, private.Options{Dir: dir, Fast: true})
	if err != nil {
		t.Fatal(err)
	}
	defer again.Stop()
	s = open(again)
	defer s.Close()
	if _, err := s.TeacherByEmail(ctx, "INES@ternharbour.example"); err != nil {
		t.Errorf("after the second start: %v", err)
	}
}
